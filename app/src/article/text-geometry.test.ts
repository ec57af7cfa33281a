import { boxOfRange, offsetAtHeight, offsetAtPoint, rangeOfText, textOfRange, topOfOffset } from './text-geometry';

const LINE = 20;
const CHARACTERS = 10;
const LETTER = 8;
let article: HTMLElement;

/** Where a character stands, as a column of lines of ten letters would have it: jsdom itself lays nothing out. */
function boxOf(node: Node, index: number): DOMRect {
  const blocks = [...article.querySelectorAll<HTMLElement>('[data-start]')];
  let top = 0;
  for (const block of blocks) {
    if (block.contains(node)) {
      const before = document.createRange();
      before.setStart(block, 0);
      before.setEnd(node, index);
      const at = before.toString().length;
      const y = top + Math.floor(at / CHARACTERS) * LINE;
      return new DOMRect((at % CHARACTERS) * LETTER, y, LETTER, LINE);
    }
    top += heightOf(block);
  }
  return new DOMRect(0, top, 0, 0);
}
const heightOf = (block: HTMLElement) => Math.max(1, Math.ceil(block.textContent.length / CHARACTERS)) * LINE;

beforeAll(() => {
  if (!('DOMRect' in globalThis))
    (globalThis as { DOMRect: unknown }).DOMRect = class {
      constructor(
        readonly x: number,
        readonly y: number,
        readonly width: number,
        readonly height: number,
      ) {}
      get left() {
        return this.x;
      }
      get top() {
        return this.y;
      }
      get right() {
        return this.x + this.width;
      }
      get bottom() {
        return this.y + this.height;
      }
    };
  Range.prototype.getClientRects = function () {
    const boxes: DOMRect[] = [];
    if (this.startContainer === this.endContainer)
      for (let at = this.startOffset; at < this.endOffset; at++) boxes.push(boxOf(this.startContainer, at));
    else boxes.push(boxOf(this.startContainer, this.startOffset));
    return boxes as unknown as DOMRectList;
  };
  Range.prototype.getBoundingClientRect = function () {
    const first = boxOf(this.startContainer, this.startOffset);
    const last = boxOf(this.endContainer, Math.max(0, this.endOffset - 1));
    return new DOMRect(first.left, first.top, last.right - first.left, last.bottom - first.top);
  };
  jest.spyOn(HTMLElement.prototype, 'getBoundingClientRect').mockImplementation(function (this: HTMLElement) {
    const blocks = [...article.querySelectorAll<HTMLElement>('[data-start]')];
    const at = blocks.indexOf(this);
    if (at === -1) return new DOMRect(0, 0, 400, 400);
    const top = blocks.slice(0, at).reduce((sum, block) => sum + heightOf(block), 0);
    return new DOMRect(0, top, CHARACTERS * LETTER, heightOf(this));
  });
});

/** Three blocks whose plain text is `First words of it.\n\nSecond\nline\n\none\ttwo`. */
beforeEach(() => {
  article = document.createElement('div');
  article.innerHTML =
    '<p data-start="0">First <em>words</em> of it.</p><p data-start="20">Second<br>line</p>' +
    '<table><tbody><tr data-start="33"><td>one</td><td>two</td></tr></tbody></table>';
  document.body.replaceChildren(article);
});
const TEXT = 'First words of it.\n\nSecond\nline\n\none\ttwo';
const at = (words: string) => TEXT.indexOf(words);

it('finds the line of a character, and the first character of a line', () => {
  expect(topOfOffset(article, 0, article)).toBe(0);
  expect(topOfOffset(article, at('of it'), article)).toBe(LINE);
  expect(topOfOffset(article, at('Second'), article)).toBe(2 * LINE);
  expect(topOfOffset(article, 10_000, article)).toBe(3 * LINE);
  for (const [height, offset] of [
    [0, 0],
    [LINE, CHARACTERS],
    [2 * LINE, at('Second')],
    [3 * LINE, at('one')],
    [9 * LINE, TEXT.length],
  ] as const)
    expect(offsetAtHeight(article, height, article)).toBe(offset);
});

it('makes ranges of offsets and offsets of ranges, over the edges of elements and cells', () => {
  for (const words of ['First words', 'words', 'rds of', 'line', 'two', 'one']) {
    const range = rangeOfText(article, at(words), at(words) + words.length)!;
    expect(range.toString()).toBe(words);
    expect(textOfRange(article, range)).toEqual({ start: at(words), end: at(words) + words.length });
  }
  // From one block into another, by what is plain text between them.
  const across = rangeOfText(article, at('it.'), at('line') + 4)!;
  expect(across.toString()).toBe('it.Secondline');
  expect(textOfRange(article, across)).toEqual({ start: at('it.'), end: at('line') + 4 });
});

it('says nothing of a range outside the text, and of an empty article', () => {
  const outside = document.createElement('p');
  outside.textContent = 'Not of the article.';
  document.body.append(outside);
  const range = document.createRange();
  range.selectNodeContents(outside);
  expect(textOfRange(article, range)).toBeNull();
  article.replaceChildren();
  expect([rangeOfText(article, 0, 4), topOfOffset(article, 9, article), offsetAtHeight(article, 9, article)]).toEqual([
    null,
    0,
    0,
  ]);
});

it('finds the character at a point, and the box of a part', () => {
  const words = at('words');
  const box = boxOfRange(article, words, words + 1)!;
  expect([box.left, box.top]).toEqual([words * LETTER, 0]);
  expect(offsetAtPoint(article, words * LETTER + 3, 5)).toBe(words);
  expect(offsetAtPoint(article, 9 * CHARACTERS * LETTER, 5)).toBeNull();
  expect(offsetAtPoint(article, 3, 9 * LINE)).toBeNull();
});

it('passes over what stands for a picture that is missing', () => {
  article.innerHTML = '<p data-start="0">Before <span class="picture-missing">A picture</span>after.</p>';
  expect(rangeOfText(article, 7, 13)?.toString()).toContain('after');
  expect(textOfRange(article, rangeOfText(article, 7, 12)!)).toEqual({ start: 7, end: 12 });
});
