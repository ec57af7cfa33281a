import { extractArticle } from '..';

const paragraph = (n: number) =>
  `<p>Paragraph ${n} of the story tells something at some length, with a comma in it, and then it comes to its end.</p>`;
const picturesOf = (body: string) => {
  const html = `<html lang="en"><head><title>The frozen harbour</title></head><body><main><article><h1>The frozen harbour</h1>${paragraph(1)}${body}${[2, 3, 4, 5].map(paragraph).join('')}</article></main></body></html>`;
  return JSON.stringify(extractArticle(html, 'https://x.example/a').tree).match(/[\w-]+(?=\.jpg)/g) ?? [];
};
const large = (name: string, rest = '') => `<img src="/${name}.jpg" width="640" height="360" alt="The pier" ${rest}>`;

describe('pictures that come through with a text', () => {
  it.each<[string, string, string[]]>([
    ['a picture of the text', large('pier'), ['pier']],
    ['not the site’s sign', `<div id="projectlogo"><img src="/sign.jpg" alt="Logo"></div>${large('pier')}`, ['pier']],
    [
      'not the small portrait of who wrote it',
      `<div class="post-author"><span><img src="/face.jpg" width="48" height="48" alt="Ada"></span></div>${large('pier')}`,
      ['pier'],
    ],
    [
      'a portrait that the text is about',
      '<figure class="author"><img src="/face.jpg" width="480" height="640" alt="Ada"></figure>',
      ['face'],
    ],
    ['one of two that are the same', `<p>${large('pier')}</p><p>${large('pier')}</p>`, ['pier']],
    [
      'the same again where it has words of its own',
      `<figure>${large('pier')}</figure><figure>${large('pier')}<figcaption>The pier, seen once more.</figcaption></figure>`,
      ['pier', 'pier'],
    ],
  ])('%s', (_name, body, wanted) => expect(picturesOf(body)).toEqual(wanted));

  it('not those beside teasers that went', () => {
    const teaser = (n: number) =>
      `<div class="item"><div class="image"><img src="/teaser${n}.jpg" width="50" alt=""></div><div><a href="/ad${n}">Ten ways to save</a></div></div>`;
    const html = `<html lang="en"><head><title>The frozen harbour</title></head><body><main><article><h1>The frozen harbour</h1>${[1, 2, 3, 4, 5].map(paragraph).join('')}<div class="module"><div class="module_header">Additional Resources</div>${[1, 2, 3].map(teaser).join('')}</div></article></main></body></html>`;
    expect(JSON.stringify(extractArticle(html, 'https://x.example/a').tree)).not.toContain('teaser');
  });
});
