import type { Schema } from 'hast-util-sanitize';

/** Presentation elements of MathML Core (W3C) and the few beside them that pages use. */
export const MATHML_ELEMENTS: readonly string[] = (
  'math mfrac mi mmultiscripts mn mo mover mpadded mphantom mprescripts mroot mrow ms mspace msqrt mstyle msub ' +
  'msubsup msup mtable mtd mtext mtr munder munderover none menclose'
).split(' ');

/** A language tag, as far as its shape goes (BCP 47). */
export const LANGUAGE_TAG = /^[a-z]{2,3}(?:-[a-z0-9]{2,8}){0,3}$/i;

/** What a card stands for: something that plays or loads on another page. */
export const CARD_KINDS = ['video', 'sound', 'page'] as const;
export type CardKind = (typeof CARD_KINDS)[number];

/**
 * What a stored tree may hold. core/extract only makes what is listed here; the sanitiser states it a second
 * time, for trees that come from anywhere else. No class but a code's language, no style, no handler; ids are our own
 * (`in-…`) and there only for links inside the text.
 */
export const TREE_SCHEMA: Schema = {
  strip: ['script', 'style', 'template', 'noscript', 'iframe', 'object', 'embed', 'svg', 'form', 'annotation'],
  tagNames: [
    ...(
      'a abbr b bdi bdo blockquote br caption cite code dd del details dfn dl dt em figcaption figure h1 h2 h3 h4 ' +
      'h5 h6 hr img ins kbd li mark ol p pre q rp rt ruby s samp small strong sub summary sup table tbody td th time ' +
      'tr u ul var'
    ).split(' '),
    ...MATHML_ELEMENTS,
  ],
  attributes: {
    '*': [
      ['id', /^in-[a-z0-9-]{1,40}$/],
      ['lang', LANGUAGE_TAG],
    ],
    a: [
      // A mail address alone: what is to be written to it is nobody's to say but the reader's.
      ['href', /^https?:\/\//i, /^#in-[a-z0-9-]{1,40}$/, /^mailto:[^\s?<>"@]{1,64}@[a-z0-9.-]{1,190}$/i],
      // A card: its words stand in the title, so that it takes no room in the plain text.
      ['dataCard', ...CARD_KINDS],
      'title',
    ],
    abbr: ['title'],
    bdi: ['dir'],
    bdo: ['dir'],
    code: [['className', /^language-[a-z0-9+#]{1,20}$/]],
    img: [
      [
        'src',
        /^https?:\/\//i,
        /^data:image\/(?:png|jpeg|gif|webp);base64,[A-Za-z0-9+/]+=*$/,
        /^\/api\/pictures\/[0-9a-f]{64}\.webp$/,
      ],
      'alt',
      'width',
      'height',
    ],
    math: [['display', 'block', 'inline'], 'alttext', ['dir', 'ltr', 'rtl']],
    mfrac: [['linethickness', /^[\d.]{1,6}(?:px|em|pt)?$/]],
    mi: [['mathvariant', 'normal', 'bold', 'italic', 'double-struck', 'script', 'fraktur']],
    mo: [
      ['stretchy', 'true', 'false'],
      ['form', 'prefix', 'infix', 'postfix'],
    ],
    mover: [['accent', 'true', 'false']],
    munder: [['accentunder', 'true', 'false']],
    ol: ['start'],
    td: ['colSpan', 'rowSpan'],
    th: ['colSpan', 'rowSpan'],
    time: ['dateTime'],
  },
  // Ids are checked above; a prefix of the sanitiser's would be put on again each time.
  clobber: [],
  protocols: { href: ['http', 'https', 'mailto'], src: ['http', 'https', 'data'] },
  allowComments: false,
  allowDoctypes: false,
};

const KIND_WORDS: Readonly<Record<CardKind, string>> = {
  video: 'Video',
  sound: 'Sound',
  page: 'Embedded page',
};

/** What a card says: "Video: How to caulk a seam (boats.example)". @param card the properties of its link */
export function cardWords(card: Readonly<Record<string, unknown>>): string {
  const { dataCard, title, href } = card;
  const host = typeof href === 'string' && URL.canParse(href) ? new URL(href).host : '';
  const kind = KIND_WORDS[dataCard as CardKind];
  return typeof title === 'string' && title !== '' ? `${kind}: ${title} (${host})` : `${kind} (${host})`;
}
