import { toHtml } from 'hast-util-to-html';
import { givenPictures } from './given-pictures';

const PAGE = 'https://tides.example/issue/one';
const html = (markup: string) => toHtml(givenPictures(markup, PAGE).tree);
const IN_PLACE = 'data:image/webp;base64,AAAA';

describe('pictures that a device or the extension gives', () => {
  it('are figures in their order, with captions, and the lines between which they stood', () => {
    const given = `<title>The bar</title><figure><img src="/bar.png" alt="A chart"><figcaption> Low   water </figcaption></figure><figure><img src="${IN_PLACE}" alt=""></figure><blockquote><p>It has shifted.</p><p><a href="${PAGE}">Tidewater</a></p><p> </p></blockquote>`;
    expect(html(given)).toBe(
      `<figure><img src="https://tides.example/bar.png" alt="A chart"><figcaption>Low water</figcaption></figure><figure><img src="${IN_PLACE}" alt=""></figure><blockquote><p>It has shifted.</p><p><a href="${PAGE}">Tidewater</a></p></blockquote>`,
    );
    expect(givenPictures(given, PAGE)).toMatchObject({
      title: 'The bar',
      leadImageUrl: 'https://tides.example/bar.png',
      pictureCount: 2,
    });
  });

  it('carry nothing else along, whatever is in the markup', () => {
    const given = `<title></title><figure><img src="${IN_PLACE}" alt="&lt;script&gt;" onerror="alert(1)"><script>alert(2)</script></figure><blockquote onclick="x"><p><b>bold</b> <a href="javascript:alert(3)">x</a></p></blockquote><p>More</p>`;
    const made = html(given);
    expect(made).not.toMatch(/alert|onerror|onclick|javascript|More/);
    expect(made).toContain('alt="<script>"');
  });

  it('are left out without an address that can be had, and are forty at most', () => {
    expect(html('<title></title><figure><img src="data:text/html;base64,AAAA"></figure><figure><img></figure>')).toBe(
      '',
    );
    const many = `<title></title>${`<figure><img src="${IN_PLACE}"></figure>`.repeat(50)}`;
    expect(givenPictures(many, PAGE).pictureCount).toBe(40);
  });
});
