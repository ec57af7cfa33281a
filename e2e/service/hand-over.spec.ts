import { expect, test } from '@playwright/test';
import { utteranceAt, utterances } from '@dorvel/core/speech';
import { plainText, wordStarts } from '@dorvel/core/text';
import { smallWebArticles } from '../articles';

test('from eyes to ears and back is off by one sentence at most, everywhere in every article', async ({
  request,
}) => {
  const articles = await smallWebArticles(request);
  expect(articles.length).toBeGreaterThan(30);
  for (const { address, article } of articles) {
    const { tree, language } = article;
    const spoken = utterances(tree, language);
    const { text, blocks } = plainText(tree);
    const inCode = (at: number) =>
      blocks.some(({ start, end, element }) => element.tagName === 'pre' && start <= at && at < end);
    const words = wordStarts(text, language).filter((at) => !inCode(at));
    // Every word that is not code is in exactly one utterance: nothing is skipped, nothing said twice.
    const silent = words.filter(
      (at) => spoken.filter(({ start, end }) => start <= at && at < end).length !== 1,
    );
    expect(silent, address).toEqual([]);
    // Eyes at a word, ears begin at its sentence; ears at a sentence, eyes go to its first word.
    const astray = words.filter((at) => {
      const said = utteranceAt(spoken, at);
      return !said || said.start > at || said.end <= at || utteranceAt(spoken, said.start) !== said;
    });
    expect(astray, address).toEqual([]);
  }
});
