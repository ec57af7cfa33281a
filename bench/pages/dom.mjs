import { createRequire } from 'node:module';
const require = createRequire(
  process.env.PAGES_TOOLS ? new URL('file://' + process.env.PAGES_TOOLS + '/package.json') : import.meta.url,
);
const { JSDOM, VirtualConsole } = require('jsdom');
const iconv = require('iconv-lite');
const BLOCK = new Set(
  'ADDRESS ARTICLE ASIDE BLOCKQUOTE BODY BR BUTTON CAPTION CENTER DD DETAILS DIV DL DT FIELDSET FIGCAPTION FIGURE FOOTER FORM H1 H2 H3 H4 H5 H6 HEADER HGROUP HR HTML IMG LEGEND LI MAIN NAV OL OPTION P PRE SECTION SELECT SUMMARY TABLE TBODY TD TEXTAREA TFOOT TH THEAD TR UL IFRAME VIDEO AUDIO OBJECT'.split(
    ' ',
  ),
);
const SKIP = new Set(
  'SCRIPT STYLE NOSCRIPT TEMPLATE HEAD TITLE META LINK OBJECT EMBED IFRAME SVG svg MATH math SELECT TEXTAREA BUTTON INPUT AUDIO VIDEO CANVAS NOEMBED NOFRAMES'.split(
    ' ',
  ),
);
SKIP.delete('MATH');
SKIP.delete('math');
export function parse(html, url = 'http://example.com/') {
  return new JSDOM(html, {
    url: /^https?:/.test(url || '') ? url : 'http://example.com/',
    virtualConsole: new VirtualConsole(),
  }).window.document;
}
export function textOf(node) {
  let out = '';
  (function walk(n) {
    if (n.nodeType === 3) {
      out += n.data.replace(/[ \t\r\n\f]+/g, ' ');
      return;
    }
    if (n.nodeType !== 1 && n.nodeType !== 9 && n.nodeType !== 11) return;
    const name = n.nodeName;
    if (n.nodeType === 1 && SKIP.has(name)) return;
    const b = BLOCK.has(name);
    if (b) out += '\n';
    for (let c = n.firstChild; c; c = c.nextSibling) walk(c);
    if (b) out += '\n';
  })(node);
  return out
    .replace(/[ \t\u00a0]*\n[ \t\u00a0]*/g, '\n')
    .replace(/\n{2,}/g, '\n')
    .replace(/[ \t]{2,}/g, ' ')
    .trim();
}
export function textOfHtml(html) {
  return textOf(parse('<!doctype html><body>' + html).body);
}
export function decode(buf, forced) {
  if (forced) return iconv.decode(buf, forced);
  if (buf[0] === 0xff && buf[1] === 0xfe) return iconv.decode(buf, 'utf16le');
  const head = buf.subarray(0, 4096).toString('latin1');
  const m = /<meta[^>]+charset=["']?\s*([\w-]+)/i.exec(head);
  const utf8 = new TextDecoder('utf-8', { fatal: true });
  try {
    return utf8.decode(buf);
  } catch {
    // No UTF-8: what the page declares, or what the damage tells.
  }
  const cs = m && m[1].toLowerCase();
  if (cs && cs !== 'utf-8' && cs !== 'utf8' && iconv.encodingExists(cs)) return iconv.decode(buf, cs);
  // damaged utf-8: count of bad sequences decides
  const s = buf.toString('utf8');
  const bad = (s.match(/\ufffd/g) || []).length;
  if (bad < 50) return s;
  return iconv.decode(buf, 'windows-1252');
}
