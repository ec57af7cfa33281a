import render from 'dom-serializer';
import { Element, Text } from 'domhandler';
import { appendChild } from 'domutils';
import { type Feed, feedTitle } from '../model';
import { attributeOf, elementsIn, parseXml } from './xml';

/** A feed in a list of subscriptions. */
export interface Subscription {
  title: string | null;
  /** Address of the feed. */
  address: string;
  /** Address of the site it is of. */
  siteUrl: string | null;
  /** The folders it lies in, the outermost first. */
  folders: string[];
}

/** A feed as a list of subscriptions has it: its tag as the folders that it lies in. */
export function subscriptionOf(feed: Feed): Subscription {
  return {
    title: feedTitle(feed),
    address: feed.state.feedAddress ?? feed.address,
    siteUrl: feed.state.siteUrl,
    folders: feed.choices.tag.value?.split('/') ?? [],
  };
}

/**
 * Reads a list of subscriptions (OPML 2.0, "Subscription lists"; opml.org/spec2.opml). Each feed once.
 *
 * @returns null when it is no OPML
 */
export function readOpml(source: string): Subscription[] | null {
  const document = parseXml(source.trimStart());
  const root = elementsIn(document).find(({ name }) => name.toLowerCase() === 'opml');
  if (!root) return null;
  const found = new Map<string, Subscription>();
  const open = elementsIn(root)
    .filter(({ name }) => name.toLowerCase() === 'body')
    .flatMap((body) => elementsIn(body).map((element) => ({ element, folders: [] as string[] })))
    .reverse();
  for (let at = open.pop(); at; at = open.pop()) {
    const { element, folders } = at;
    const title = attributeOf(element, 'title') ?? attributeOf(element, 'text');
    const address = attributeOf(element, 'xmlurl');
    const inside = elementsIn(element);
    if (address && !found.has(address))
      found.set(address, { title, address, siteUrl: attributeOf(element, 'htmlurl'), folders });
    const around = !address && title ? [...folders, title] : folders;
    open.push(...inside.map((each) => ({ element: each, folders: around })).reverse());
  }
  return [...found.values()];
}

/**
 * Writes a list of subscriptions as OPML 2.0; feeds of one folder stand together.
 *
 * @param title of the list
 * @param madeAt milliseconds since 1970
 */
export function writeOpml(title: string, madeAt: number, subscriptions: readonly Subscription[]): string {
  const body = new Element('body', {});
  for (const subscription of subscriptions) {
    const folder = subscription.folders.reduce((parent, name) => outlineNamed(parent, name), body);
    const named = subscription.title ?? subscription.address;
    add(
      folder,
      new Element('outline', {
        type: 'rss',
        text: named,
        title: named,
        xmlUrl: subscription.address,
        ...(subscription.siteUrl ? { htmlUrl: subscription.siteUrl } : {}),
      }),
    );
  }
  return opmlDocument(title, madeAt, body);
}

/** A part of an outline: a heading with what stands under it, or a page. */
export interface OutlinePart {
  text: string;
  /** Of a page; null for a heading. */
  address: string | null;
  parts: readonly OutlinePart[];
}

/** Writes an outline of pages as OPML 2.0, each page a link (opml.org/spec2, "type attribute"). */
export function writeOutline(title: string, madeAt: number, parts: readonly OutlinePart[]): string {
  const put = (parent: Element, part: OutlinePart): void => {
    const link = part.address === null ? {} : { type: 'link', url: part.address };
    const outline = add(parent, new Element('outline', { text: part.text, ...link }));
    for (const each of part.parts) put(outline, each);
  };
  const body = new Element('body', {});
  for (const part of parts) put(body, part);
  return opmlDocument(title, madeAt, body);
}

function opmlDocument(title: string, madeAt: number, body: Element): string {
  const head = new Element('head', {});
  add(head, new Element('title', {}, [new Text(title)]));
  add(head, new Element('dateCreated', {}, [new Text(new Date(madeAt).toUTCString())]));
  const root = new Element('opml', { version: '2.0' });
  add(root, head);
  add(root, body);
  return `<?xml version="1.0" encoding="UTF-8"?>\n${render(root, { xmlMode: true })}\n`;
}

function outlineNamed(parent: Element, name: string): Element {
  const known = elementsIn(parent).find((each) => !each.attribs.xmlUrl && each.attribs.text === name);
  return known ?? add(parent, new Element('outline', { text: name, title: name }));
}

function add(parent: Element, child: Element): Element {
  appendChild(parent, child);
  return child;
}
