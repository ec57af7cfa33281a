import { expect, test } from '@playwright/test';
import { extractArticle } from '@dorvel/core/extract';
import { utteranceAt, utterances } from '@dorvel/core/speech';
import { plainText, wordStarts } from '@dorvel/core/text';
import { smallWebAddresses } from '../../demo/small-web/server';
import { SMALL_WEB_PORT } from '../ports';

test('from eyes to ears and back is off by one sentence at most, everywhere in every article', async ({
  request,
}) => {
  const pages = smallWebAddresses(SMALL_WEB_PORT);
  expect(pages.length).toBeGreaterThan(30);
  for (const { address } of pages) {
    // Asked of this machine by name, whether or not its resolver knows hosts below localhost.
    const { host, port, pathname } = new URL(address);
    const html = await (
      await request.get(`http://127.0.0.1:${port}${pathname}`, { headers: { host } })
    ).text();
    const { tree, language } = extractArticle(html, address);
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
