import { extractArticle } from '..';

const iconOf = (...links: string[]) =>
  extractArticle(
    `<!doctype html><html><head><title>T</title>${links.join('')}</head><body><p>Text.</p></body></html>`,
    'https://x.example/a/b',
  ).iconUrl;

// The examples of the HTML Living Standard, link type "icon", and of what stands beside them in practice.
describe('the icon of a site', () => {
  it('is the smallest of its sizes that is large enough', () => {
    const links = [
      '<link rel=icon href=favicon.png sizes="16x16" type="image/png">',
      '<link rel=icon href=windows.ico sizes="32x32 48x48" type="image/vnd.microsoft.icon">',
      '<link rel=icon href=mac.png sizes="128x128 512x512 8192x8192 32768x32768">',
      '<link rel=icon href=iphone.png sizes="57x57" type="image/png">',
      '<link rel=icon href=gnome.svg sizes="any" type="image/svg+xml">',
    ];
    expect(iconOf(...links)).toBe('https://x.example/a/gnome.svg');
    expect(iconOf(...links.slice(0, 4))).toBe('https://x.example/a/iphone.png');
    expect(iconOf(...links.slice(0, 2))).toBe('https://x.example/a/windows.ico');
    expect(iconOf(...links.slice(0, 1))).toBe('https://x.example/a/favicon.png');
  });

  it('is one for touching rather than one of which no size is said', () => {
    expect(
      iconOf('<link rel="shortcut icon" href="/small.png">', '<link rel="apple-touch-icon" href="/touch.png?v=2">'),
    ).toBe('https://x.example/touch.png?v=2');
    expect(iconOf('<link rel="Shortcut Icon" href="//cdn.example/small.png">')).toBe('https://cdn.example/small.png');
  });

  it('is one in the oldest format where there is no other', () => {
    expect(iconOf('<link rel="icon" href="/favicon.ico">', '<link rel="mask-icon" href="/mask.svg">')).toBe(
      'https://x.example/favicon.ico',
    );
    expect(iconOf('<link rel="icon" href="/favicon.ico">', '<link rel="apple-touch-icon" href="/t.png">')).toBe(
      'https://x.example/t.png',
    );
  });

  it('is none where nothing that can be fetched is linked', () => {
    expect(iconOf('<link rel="mask-icon" href="/mask.svg">')).toBeNull();
    expect(iconOf('<link rel="icon" href="javascript:alert(1)">', '<link rel="icon" href="">')).toBeNull();
    expect(iconOf('<link rel="stylesheet" href="/icon.png">')).toBeNull();
  });
});
