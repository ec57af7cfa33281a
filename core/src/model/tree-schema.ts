import type { Schema } from 'hast-util-sanitize';

/**
 * What a stored tree may hold. core/extract only makes what is listed here; the sanitiser states it a second
 * time, for trees that come from anywhere else. No class but a code's language, no style, no id, no handler.
 */
export const TREE_SCHEMA: Schema = {
  strip: ['script', 'style', 'template', 'noscript', 'iframe', 'object', 'embed', 'svg', 'math', 'form'],
  tagNames: (
    'a abbr b bdi bdo blockquote br caption cite code dd del details dfn dl dt em figcaption figure h1 h2 h3 h4 ' +
    'h5 h6 hr img ins kbd li mark ol p pre q rp rt ruby s samp small strong sub summary sup table tbody td th time ' +
    'tr u ul var'
  ).split(' '),
  attributes: {
    a: ['href'],
    abbr: ['title'],
    bdi: ['dir'],
    bdo: ['dir'],
    code: [['className', /^language-[a-z0-9+#]{1,20}$/]],
    img: ['src', 'alt', 'width', 'height'],
    ol: ['start'],
    td: ['colSpan', 'rowSpan'],
    th: ['colSpan', 'rowSpan'],
    time: ['dateTime'],
  },
  protocols: { href: ['http', 'https'], src: ['http', 'https'] },
  allowComments: false,
  allowDoctypes: false,
};
