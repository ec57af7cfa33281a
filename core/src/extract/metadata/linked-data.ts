import { z } from 'zod';
import {
  attribute,
  elementsIn,
  isText,
  type PageDocument,
  type PageElement,
  startOfText,
  tidy,
} from '../page/page-tree';

/** A thing that a page describes in schema.org's terms: its properties as stated, and its `@type`. */
export const Thing = z.record(z.string(), z.unknown());
export type Thing = z.infer<typeof Thing>;

type ThingSource = 'json-ld' | 'microdata' | 'rdfa';

export interface StatedThing {
  thing: Thing;
  source: ThingSource;
}

const MAX_THINGS = 400;
const MAX_VALUE_LENGTH = 400;

/**
 * All that a page describes in JSON-LD 1.1 (blocks, arrays, graphs, broken JSON as far as it can be mended), in HTML
 * microdata (WHATWG HTML, 5) and in RDFa Lite 1.1; in this order, which is the order of trust.
 *
 * @param elements all elements of the page, in document order
 */
export function readThings(document: PageDocument, elements: readonly PageElement[]): StatedThing[] {
  const linked: Thing[] = [];
  for (const element of elements) {
    if (element.tagName !== 'script' || !/ld\+json/i.test(attribute(element, 'type') ?? '')) continue;
    const source = element.childNodes
      .filter(isText)
      .map((node) => node.value)
      .join('');
    collectThings(parseLoosely(source), linked, 0);
  }
  const has = (name: string) => elements.some((element) => attribute(element, name) !== undefined);
  return [
    ...withNames(linked).map((thing) => ({ thing, source: 'json-ld' as const })),
    ...(has('itemscope') ? scopedThings(document, MICRODATA) : []).map((thing) => ({
      thing,
      source: 'microdata' as const,
    })),
    ...(has('typeof') ? scopedThings(document, RDFA) : []).map((thing) => ({
      thing,
      source: 'rdfa' as const,
    })),
  ];
}

/** Properties that lead to people and bodies. */
const NAMED_THINGS = ['author', 'creator', 'publisher', 'isPartOf', 'image'] as const;

/** Things of which the properties that are a mere `@id` are what is described elsewhere under it (JSON-LD 1.1, 3.3, node identifiers). */
function withNames(things: readonly Thing[]): Thing[] {
  const byId = new Map(things.flatMap((thing) => (typeof thing['@id'] === 'string' ? [[thing['@id'], thing]] : [])));
  const named = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(named);
    const reference = Thing.safeParse(value);
    if (!reference.success || Object.keys(reference.data).length > 1) return value;
    const id = reference.data['@id'];
    return (typeof id === 'string' ? byId.get(id) : undefined) ?? value;
  };
  return things.map((thing) => ({
    ...thing,
    ...Object.fromEntries(NAMED_THINGS.flatMap((name) => (name in thing ? [[name, named(thing[name])]] : []))),
  }));
}

/** True when one of a thing's types ends in one of the words. */
export function isOfType(thing: Thing, types: RegExp): boolean {
  return [thing['@type']].flat().some((type) => typeof type === 'string' && types.test(type));
}

function collectThings(value: unknown, things: Thing[], depth: number): void {
  if (depth > 6 || things.length >= MAX_THINGS) return;
  if (Array.isArray(value)) {
    for (const each of value) collectThings(each, things, depth + 1);
    return;
  }
  const parsed = Thing.safeParse(value);
  if (!parsed.success) return;
  if ('@type' in parsed.data) things.push(parsed.data);
  for (const key of ['@graph', 'mainEntity', 'mainEntityOfPage', 'itemListElement', 'item'])
    collectThings(parsed.data[key], things, depth + 1);
}

/** What pages put around JSON so that old browsers and XML leave it alone. */
const WRAPPING = {
  before: ['<!--', '//', '<![CDATA[', '*/', '/*'],
  after: [';', '-->', '*/', ']]>', '//', '/*'],
};
/** No page has more of it. */
const MOST_WRAPPING = 8;

/** JSON without what stands around it; piece by piece, since one expression for all would try every way to part the white space. */
function withoutWrapping(source: string): string {
  let bare = source.trim();
  for (let round = 0; round < MOST_WRAPPING; round++) {
    const begins = WRAPPING.before.find((mark) => bare.startsWith(mark));
    if (begins === undefined) break;
    const end = begins === '/*' ? bare.indexOf('*/') + 2 : 0;
    bare = bare.slice(Math.max(end === 1 ? 0 : end, begins.length)).trimStart();
  }
  for (let round = 0; round < MOST_WRAPPING; round++) {
    const ends = WRAPPING.after.find((mark) => bare.endsWith(mark));
    if (ends === undefined) break;
    bare = bare.slice(0, -ends.length).trimEnd();
  }
  return bare;
}

/** JSON as pages write it: in comments or CDATA, with raw line breaks inside strings, with a comma too many. */
export function parseLoosely(source: string): unknown {
  const bare = withoutWrapping(source);
  for (const attempt of [source, bare, bare.replace(/\p{Cc}+/gu, ' ').replace(/,\s*([\]}])/g, '$1')]) {
    try {
      return JSON.parse(attempt);
    } catch {
      // Not JSON in this reading; the next one is looser. A page whose JSON-LD stays broken has its other metadata.
    }
  }
  return undefined;
}

/** How a syntax marks things and their properties in the markup. */
interface Marks {
  /** The type of the thing that an element begins; undefined when it begins none. */
  type(element: PageElement): string | undefined;
  property(element: PageElement): string[];
}

const lastPart = (iri: string) =>
  /([\p{L}\p{N}]+)\/?$/u.exec(iri.trim().split(/\s+/)[0]?.slice(-MAX_VALUE_LENGTH) ?? '')?.[1] ?? '';

const MICRODATA: Marks = {
  type: (element) =>
    attribute(element, 'itemscope') === undefined ? undefined : lastPart(attribute(element, 'itemtype') ?? ''),
  property: (element) => attribute(element, 'itemprop')?.split(/\s+/).filter(Boolean) ?? [],
};

const RDFA: Marks = {
  type: (element) => {
    const type = attribute(element, 'typeof');
    return type === undefined ? undefined : lastPart(type.replace(/^\w+:/, ''));
  },
  // What begins with another vocabulary's prefix (og:, dc:) is not schema.org's.
  property: (element) =>
    (attribute(element, 'property') ?? '')
      .split(/\s+/)
      .filter((name) => name !== '' && !name.replace(/^schema:/, '').includes(':'))
      .map((name) => name.replace(/^schema:/, '')),
};

function scopedThings(document: PageDocument, marks: Marks): Thing[] {
  const things: Thing[] = [];
  const visit = (element: PageElement, scope: Thing | null) => {
    const type = things.length < MAX_THINGS ? marks.type(element) : undefined;
    const names = scope ? marks.property(element) : [];
    const inner: Thing | null = type === undefined ? scope : { '@type': type };
    if (type !== undefined && inner) {
      things.push(inner);
      const address = attribute(element, 'itemid') ?? attribute(element, 'resource');
      if (address) inner.url = address;
    }
    for (const name of names) if (scope) add(scope, name, type === undefined ? valueOf(element) : inner);
    for (const child of elementsIn(element)) visit(child, inner);
  };
  for (const element of elementsIn(document)) visit(element, null);
  return things;
}

function add(thing: Thing, name: string, value: unknown): void {
  const known = thing[name];
  if (known === undefined) thing[name] = value;
  else if (Array.isArray(known)) known.push(value);
  else thing[name] = [known, value];
}

/** The value of a property by its element (WHATWG HTML, 5.2.4). */
function valueOf(element: PageElement): string {
  const stated = attribute(element, 'content');
  if (stated !== undefined) return tidy(stated);
  const named = {
    a: 'href',
    area: 'href',
    link: 'href',
    img: 'src',
    audio: 'src',
    video: 'src',
    source: 'src',
    iframe: 'src',
    embed: 'src',
    object: 'data',
    time: 'datetime',
    data: 'value',
    meter: 'value',
  }[element.tagName];
  const value = named && attribute(element, named);
  return value === undefined || value === ''
    ? startOfText(element, MAX_VALUE_LENGTH).slice(0, MAX_VALUE_LENGTH)
    : tidy(value);
}

/** A property as text: of a list the first, of a thing nothing. */
export function textValue(value: unknown): string | null {
  if (Array.isArray(value)) return textValue(value[0]);
  if (typeof value === 'number') return String(value);
  if (typeof value !== 'string') return null;
  return decodeEntities(tidy(value)) || null;
}

/** The name of a thing, or a name that stands for itself. Addresses are no names. */
export function nameOf(value: unknown): string | null {
  const one = firstOf(value);
  if (typeof one === 'string') return /^https?:/.test(one) ? null : textValue(one);
  const thing = Thing.safeParse(one);
  return thing.success ? textValue(thing.data.name) : null;
}

export function firstOf(value: unknown): unknown {
  return Array.isArray(value) ? (value as unknown[])[0] : value;
}

const ENTITIES: Readonly<Record<string, string>> = {
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  apos: "'",
  nbsp: ' ',
};

/** JSON-LD is often escaped twice. */
function decodeEntities(value: string): string {
  return value
    .replace(/&#(x?)([0-9a-f]{1,6});/gi, (_, hex: string, code: string) => {
      const point = parseInt(code, hex ? 16 : 10);
      return point > 0 && point <= 0x10ffff ? String.fromCodePoint(point) : '';
    })
    .replace(/&(amp|lt|gt|quot|apos|nbsp);/g, (_, name: string) => ENTITIES[name] ?? '');
}
