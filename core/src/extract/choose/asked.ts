import { measure } from '../page/measure';
import {
  attribute,
  descendants,
  elementsIn,
  findElement,
  isElement,
  isText,
  type PageElement,
  type PageNode,
  remove,
  startOfText,
  tidy,
  WITHOUT_TEXT,
} from '../page/page-tree';
import { asksForConsent } from '../page/walls';
import { announcesComments } from './lines';

/**
 * Takes out of a page what asks something of its readers, and what they answered: consent to be followed, an address to write to,
 * an opinion. These are known by what stands in them to be pressed or filled in, whatever the page calls them, so that it is
 * done before anything is judged. A page that is little else keeps all of it. Changes the page's tree.
 *
 * @returns what was taken out
 */
export function removeAsked(body: PageElement): Taken[] {
  const { fields, buttons, replies, headlines } = whatAsks(body);
  const askers = [
    ...fields.map(({ field, asked }) => ({ asked, box: askingBox(field, asked, headlines) })),
    ...buttons.map((button) => ({ asked: 'consent' as const, box: consentBox(button, headlines) })),
  ];
  if (askers.every(({ box }) => box === null) && replies.length < 2) return [];
  const measures = measure(body);
  const proseOf = (element: PageElement) => measures.get(element)?.prose ?? 0;
  const all = proseOf(body);
  const gone: Taken[] = [];
  for (const { box, asked } of askers) {
    if (box === null) continue;
    const { most, elsewhere, times } = LIMITS[asked];
    if (askers.filter((each) => each.asked === asked && each.box !== null).length > times || holdsCode(box)) continue;
    if (proseOf(box) <= most * all && all - proseOf(box) >= elsewhere) gone.push({ element: box, asked });
  }
  for (const { element } of gone) remove(element);
  const answers = answersAmong(replies, proseOf, all).map((element): Taken => ({ element, asked: 'answer' }));
  for (const { element } of answers) remove(element);
  return [...gone, ...answers];
}

/** What was taken out of a page, and what it asked; or what was answered. */
export interface Taken {
  element: PageElement;
  asked: Asked | 'answer';
}

interface WhatAsks {
  fields: { field: PageElement; asked: 'address' | 'opinion' }[];
  /** That may let a page do as it likes. */
  buttons: PageElement[];
  replies: PageElement[];
  /** What has a heading of the first rank in it: no such box only asks. */
  headlines: Set<PageElement>;
}

/** Of each kind no more than these are looked at. */
const MOST_OF_KIND = 100;

function whatAsks(body: PageElement): WhatAsks {
  const found: WhatAsks = { fields: [], buttons: [], replies: [], headlines: new Set() };
  for (const element of descendants(body)) {
    const asked = fieldOf(element);
    if (asked !== null && found.fields.length < MOST_OF_KIND) found.fields.push({ field: element, asked });
    else if (isPressed(element)) {
      const words = fewWords([element], MOST_WORDS_OF_BUTTON) ?? '';
      if (REPLY.test(words) && found.replies.length < MOST_OF_KIND) found.replies.push(element);
      else if (MAY_CONSENT.test(words) && found.buttons.length < MOST_OF_KIND) found.buttons.push(element);
    } else if (element.tagName === 'h1')
      for (let at = element.parentNode; at && isElement(at) && !found.headlines.has(at); at = at.parentNode)
        found.headlines.add(at);
  }
  return found;
}

/** What a page that is made to take long could hang below a box. */
const MOST_NODES = 600;

/** The words of nodes, with a space between two of them; null where they are more, or so much else is there, that it is no small box. */
function fewWords(nodes: readonly PageNode[], most: number): string | null {
  let words = '';
  let count = 0;
  const stack = nodes.toReversed();
  for (let node = stack.pop(); node; node = stack.pop()) {
    if (++count > MOST_NODES || words.length > 2 * most) return null;
    if (isText(node)) words += ` ${node.value}`;
    else if ('childNodes' in node && !(isElement(node) && WITHOUT_TEXT.has(node.tagName)))
      for (let at = node.childNodes.length - 1; at >= 0 && stack.length <= MOST_NODES; at--) {
        const child = node.childNodes[at];
        if (child) stack.push(child);
      }
  }
  const tidied = tidy(words);
  return tidied.length > most ? null : tidied;
}

type Asked = 'address' | 'opinion' | 'consent';

/**
 * How much of the page's prose a box may hold, as a share of it; how much must stand elsewhere, in characters; and how often a page
 * asks the same: one with more fields shows how fields are made, or is for trying things out.
 */
const LIMITS: Record<Asked, { most: number; elsewhere: number; times: number }> = {
  address: { most: 0.25, elsewhere: 200, times: 5 },
  opinion: { most: 0.5, elsewhere: 200, times: 2 },
  consent: { most: 0.5, elsewhere: 0, times: 20 },
};

const holdsCode = (box: PageElement) => findElement(box, ({ tagName }) => tagName === 'pre') !== undefined;

const MOST_WORDS_OF_BUTTON = 60;
/** Before the field there is a heading and a sentence, in characters. */
const MOST_BEFORE = { address: 400, opinion: 160 };
const MOST_AFTER_ADDRESS = 300;

function fieldOf(element: PageElement): 'address' | 'opinion' | null {
  // What has something in it already is there to be tried out.
  if (element.tagName === 'textarea')
    return startOfText(element, 10) === '' && attribute(element, 'readonly') === undefined ? 'opinion' : null;
  if (element.tagName !== 'input') return null;
  const type = attribute(element, 'type')?.toLowerCase() ?? 'text';
  const says = ['name', 'placeholder', 'aria-label', 'autocomplete'].map((name) => attribute(element, name)).join(' ');
  return type === 'email' || (type === 'text' && /\be-?mail\b|\bmail address\b/i.test(says)) ? 'address' : null;
}

/** What can be pressed, by itself or by a script. */
function isPressed(element: PageElement): boolean {
  return element.tagName === 'button' || element.tagName === 'a' || attribute(element, 'role') === 'button';
}

/** The box that a field stands in with the words that ask for it; none where more than those is in it. */
function askingBox(
  field: PageElement,
  asked: 'address' | 'opinion',
  headlines: ReadonlySet<PageElement>,
): PageElement | null {
  let box = formAround(field) ?? field;
  for (let up = 0; up < MOST_UP; up++) {
    const parent = box.parentNode;
    if (!parent || !isElement(parent) || WHOLE.has(parent.tagName) || headlines.has(parent)) return null;
    const at = parent.childNodes.indexOf(box);
    const before = fewWords(parent.childNodes.slice(0, at), MOST_BEFORE[asked]);
    if (before === null) return null;
    const after = asked === 'address' ? fewWords(parent.childNodes.slice(at + 1), MOST_AFTER_ADDRESS) : '';
    if (after === null) return null;
    box = parent;
    if (before !== '') return box;
  }
  return null;
}

const MOST_UP = 8;
const WHOLE = new Set('body main article html td'.split(' '));

function formAround(field: PageElement): PageElement | null {
  for (let at = field.parentNode, up = 0; at && isElement(at) && up < MOST_UP; at = at.parentNode, up++)
    if (at.tagName === 'form') return at;
  return null;
}

/** Words of what is pressed to let a page do as it likes, or not. Common practice. */
const MAY_CONSENT =
  /accept|agree|allow|reject|decline|manage|got it|akzept|zustimm|ablehn|einverstanden|refuser|aceptar|rechazar|aceitar|accetta|rifiuta|akkoord|weigeren|godkänn|neka|godta|avvis|tillad|hyväksy|akcept|zgadzam|принять|соглас|同意|許可|接受/i;
const MOST_CONSENT = 1500;

/** The smallest box around a button that asks for consent. */
function consentBox(button: PageElement, headlines: ReadonlySet<PageElement>): PageElement | null {
  let at = button.parentNode;
  for (let up = 0; at && isElement(at) && up < MOST_UP; at = at.parentNode, up++) {
    const words = WHOLE.has(at.tagName) || headlines.has(at) ? null : fewWords([at], MOST_CONSENT);
    if (words === null) return null;
    if (asksForConsent(words)) return at;
  }
  return null;
}

/** What is pressed to answer somebody, or to say what one thinks of what they wrote. Common practice. */
const REPLY =
  /^\W{0,3}(?:(?:reply|antworten|répondre|responder|rispondi|beantwoorden|reageer|svara|svar|vastaa|odpowiedz|odpovědět|válasz|răspunde|yanıtla|ответить|відповісти|返信(?:する)?|回复|回覆|답글|رد)(?:\s(?:to|an|à|a|auf)\s.{1,40})?|(?:mark as )?helpful|hilfreich|utile|útil|nuttig|upvote|report (?:abuse|review|comment)|melden|signaler)(?:\s?\(?\d{0,5}\)?)?\W{0,3}$/iu;
/** Prose that must stand outside of what readers wrote, in characters. */
const ENOUGH_ELSEWHERE = 400;
/** Where it is no less than theirs, this is enough. */
const ENOUGH_SHORT = 100;
const MOST_HEADING = 60;

/** Boxes that stand beside one another and can each be replied to, and the line that announces them. */
function answersAmong(
  replies: readonly PageElement[],
  proseOf: (element: PageElement) => number,
  all: number,
): PageElement[] {
  /** For each element, those of its children in which something can be replied to. */
  const answered = new Map<PageElement, Set<PageElement>>();
  for (const reply of replies)
    for (let at = reply; at.parentNode && isElement(at.parentNode); at = at.parentNode) {
      const known = answered.get(at.parentNode);
      if (known?.has(at)) break;
      if (known) known.add(at);
      else answered.set(at.parentNode, new Set([at]));
    }
  const gone = [...answered].filter(([, children]) => children.size >= 2).flatMap(([, children]) => [...children]);
  const answers = gone.filter((each) => !isPressed(each) && !gone.some((other) => other !== each && isIn(each, other)));
  const prose = answers.reduce((sum, each) => sum + proseOf(each), 0);
  const elsewhere = all - prose;
  if (answers.length < 2 || elsewhere < Math.min(ENOUGH_ELSEWHERE, Math.max(ENOUGH_SHORT, prose))) return [];
  return answers.flatMap((each) => {
    const above = before(each);
    return above && announces(startOfText(above, MOST_HEADING)) ? [above, each] : [each];
  });
}

function isIn(element: PageElement, outer: PageElement): boolean {
  for (let at = element.parentNode; at && isElement(at); at = at.parentNode) if (at === outer) return true;
  return false;
}

function before(element: PageElement): PageElement | undefined {
  const beside = element.parentNode && isElement(element.parentNode) ? elementsIn(element.parentNode) : [];
  return beside[beside.indexOf(element) - 1];
}

/** "38 responses", "3 thoughts on …": how many there are, or that they follow. */
const announces = (text: string) =>
  text.length <= MOST_HEADING && (announcesComments(text) || /^\d{1,5}\s\p{L}/u.test(text));
