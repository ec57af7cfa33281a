import { readSearchPage, wordsSearched } from './search-pages';

test.each([
  ['https://search.example/?q=%s', { pattern: 'https://search.example/*', parameter: 'q' }],
  ['http://a.example:8080/find?lang=en&words=%s', { pattern: 'http://a.example/find*', parameter: 'words' }],
  ['https://search.example/', null],
  ['https://search.example/%s', null],
  ['javascript:alert(1)?q=%s', null],
  ['search.example/?q=%s', null],
])('%s', (written, page) => {
  expect(readSearchPage(written)).toEqual(page);
});

test('words are taken from the pages that were named, and from no other', () => {
  const searches = ['https://search.example/find?q=%s', 'https://other.example/?words=%s'];
  expect(wordsSearched('https://search.example/find?q=eelgrass+beds&page=2', searches)).toBe('eelgrass beds');
  expect(wordsSearched('https://other.example/?words=tide', searches)).toBe('tide');
  expect(wordsSearched('https://search.example/find?q=%20', searches)).toBeNull();
  expect(wordsSearched('https://search.example/maps?q=eelgrass', searches)).toBeNull();
  expect(wordsSearched('https://evil.example/find?q=eelgrass', searches)).toBeNull();
});
