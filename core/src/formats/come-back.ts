import escape from 'escape-html';
import { oneLine } from './dossier-handed-on';
import { type FeedOut, writeAtom, writeJsonFeed } from './feed-write';

/** An item that is brought before a reader outside of the app. */
export interface ComeBackEntry {
  itemId: string;
  title: string;
  source: string;
  /** Why it is here, in words. */
  reason: string;
  /** How long it takes from where they stopped, in words. */
  length: string;
  /** In the reader's own library. */
  href: string;
}

/** A part of a letter: what is due, what has come back, what was begun. */
export interface ComeBackPart {
  heading: string;
  entries: readonly ComeBackEntry[];
}

export interface Letter {
  subject: string;
  text: string;
  html: string;
}

interface LetterFacts {
  /** Of its day, in words: "Saturday, 28 November". */
  day: string;
  parts: readonly ComeBackPart[];
  /** What the reader meant to do by today, in their words. */
  tasks: readonly string[];
  /** Where letters are turned off. */
  settings: string;
}

/**
 * The daily letter, as plain text and as HTML with inline styles: mail programs drop style sheets. What stands in it is the
 * reader's own and other people's words, which are text in both and never markup.
 */
export function dailyLetter({ day, parts, tasks, settings }: LetterFacts): Letter {
  const [first] = parts.flatMap(({ entries }) => entries);
  const filled = parts.filter(({ entries }) => entries.length > 0);
  const subject = `For ${day}: ${oneLine(first?.title ?? tasks[0] ?? 'nothing waits')}`.slice(0, 200);
  const text = [
    day,
    ...filled.map(({ heading, entries }) =>
      [heading.toUpperCase(), ...entries.map((entry) => `${asText(entry)}\n`)].join('\n\n'),
    ),
    ...(tasks.length > 0 ? [['TO DO', ...tasks.map((task) => `- ${oneLine(task)}`)].join('\n')] : []),
    `--\nYou asked for this letter. To have none: ${settings}`,
  ].join('\n\n');
  return { subject, text: `${text}\n`, html: asHtml({ day, parts: filled, tasks, settings }) };
}

const asText = ({ title, source, reason, length, href }: ComeBackEntry): string =>
  `${oneLine(title)}\n${oneLine(source)} · ${length}\n${reason}\n${href}`;

const INK = '#2B2033';
const SOFT = '#5E5268';
const ACCENT = '#6E2F6B';

function asHtml({ day, parts, tasks, settings }: LetterFacts): string {
  const heading = (words: string) => `<h2 style="margin:26px 0 6px;font-size:17px;color:${INK}">${escape(words)}</h2>`;
  const entry = ({ title, source, reason, length, href }: ComeBackEntry) =>
    `<tr><td style="padding:10px 0;border-top:1px solid #CFC6B8"><a href="${escape(href)}" style="font-size:18px;font-weight:600;color:${ACCENT}">${escape(oneLine(title))}</a><br><span style="font-size:14px;color:${SOFT}">${escape(oneLine(source))} · ${escape(length)}</span><br><span style="font-size:14px;color:${INK}">${escape(reason)}</span></td></tr>`;
  const body = [
    `<h1 style="margin:0;font-size:22px;color:${INK}">${escape(day)}</h1>`,
    ...parts.map(
      (part) =>
        `${heading(part.heading)}<table role="presentation" width="100%" cellpadding="0" cellspacing="0">${part.entries.map(entry).join('')}</table>`,
    ),
    ...(tasks.length > 0
      ? [`${heading('To do')}<ul>${tasks.map((task) => `<li>${escape(oneLine(task))}</li>`).join('')}</ul>`]
      : []),
    `<p style="margin:30px 0 0;font-size:13px;color:${SOFT}">You asked for this letter. <a href="${escape(settings)}" style="color:${ACCENT}">Have none</a>.</p>`,
  ];
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escape(day)}</title></head><body style="margin:0;padding:20px;background:#F7F4EE;color:${INK};font-family:Georgia,serif;line-height:1.45"><div style="max-width:560px;margin:0 auto">${body.join('')}</div></body></html>`;
}

/** What came back on a day, as a feed tells it. */
export interface ComeBackInFeed extends ComeBackEntry {
  /** `2026-11-28` */
  day: string;
  /** Of that day in the reader's zone, when it came back: milliseconds since 1970. */
  at: number;
}

interface FeedFacts {
  /** Of the feed itself, which only its reader knows. */
  address: string;
  /** Of the app. */
  home: string;
  entries: readonly ComeBackInFeed[];
}

const TITLE = 'Dorvel: what comes back';
/** It stays itself on all its days, and is new on each of them. */
const idOf = ({ itemId, day }: ComeBackInFeed): string => `urn:uuid:${itemId}#${day}`;
const summaryOf = ({ source, length, reason }: ComeBackEntry): string => `${source} · ${length}. ${reason}`;

const asFeed = ({ address, home, entries }: FeedFacts): FeedOut => ({
  title: TITLE,
  author: 'Dorvel',
  address,
  home,
  entries: entries.map((entry) => ({
    id: idOf(entry),
    title: oneLine(entry.title),
    at: entry.at,
    href: entry.href,
    summary: summaryOf(entry),
  })),
});

/** What comes back as an Atom feed (RFC 4287). */
export const comeBackAtom = (facts: FeedFacts): string => writeAtom(asFeed(facts));

/** The same as a JSON Feed (jsonfeed.org, version 1.1). */
export const comeBackJsonFeed = (facts: FeedFacts): string => writeJsonFeed(asFeed(facts));
