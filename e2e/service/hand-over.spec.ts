import { USUAL_SPEECH } from '@dorvel/core/listening';
import { utteranceAt, utterances } from '@dorvel/core/speech';
import { plainText, wordStarts } from '@dorvel/core/text';
import { expect, test } from '@playwright/test';
import { smallWebArticles } from '../articles';

type Element = ReturnType<typeof plainText>['blocks'][number]['element'];
type ElementContent = Element['children'][number];

/** The words of links that lead inside their own text. */
function insideLinks(node: Element): string[] {
  const textOf = (each: ElementContent): string =>
    each.type === 'text' ? each.value : each.type === 'element' ? each.children.map(textOf).join('') : '';
  return node.children.flatMap((child) =>
    child.type !== 'element'
      ? []
      : String(child.properties.href).startsWith('#')
        ? [textOf(child)]
        : insideLinks(child),
  );
}

test('from eyes to ears and back is off by one sentence at most, everywhere in every article', async ({ request }) => {
  const articles = await smallWebArticles(request);
  expect(articles.length).toBeGreaterThan(30);
  for (const { address, article } of articles) {
    const { tree, language } = article;
    const spoken = utterances(tree, language, { ...USUAL_SPEECH, footnotes: true });
    const { text, blocks } = plainText(tree);
    const words = wordStarts(text, language);
    // Every word is in exactly one utterance: nothing is skipped, nothing said twice. Only the marks of notes stand between.
    const silent = words.filter((at) => spoken.filter(({ start, end }) => start <= at && at < end).length !== 1);
    const marks = blocks.flatMap((block) => insideLinks(block.element));
    const unsaid = silent.map((at) => /^\S+/.exec(text.slice(at))?.[0] ?? '');
    expect(
      unsaid.filter((word) => !marks.some((mark) => mark.includes(word))),
      address,
    ).toEqual([]);
    // Eyes at a word, ears begin at its sentence; ears at a sentence, eyes go to its first word.
    const astray = words.filter((at) => {
      if (silent.includes(at)) return false;
      const said = utteranceAt(spoken, at);
      return !said || said.start > at || said.end <= at || utteranceAt(spoken, said.start) !== said;
    });
    expect(astray, address).toEqual([]);
  }
});
