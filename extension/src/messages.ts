import type {
  Account,
  EntryPart,
  HighlightKind,
  HowMuch,
  KnownPage,
  MarkedPassage,
  Note,
  Silenced,
} from '@dorvel/core/model';
import type { EntryMutation, ItemChoices } from '@dorvel/core/records';
import type { TextRange } from '@dorvel/core/text';
import type { Batch, Saved } from './background/save';
import type { Refused } from './background/storage';

/** How the extension stands: with whom it is paired, and what has not been sent. */
export interface ExtensionStatus {
  account: Account | null;
  origin: string | null;
  revoked: boolean;
  /** Saves and changes that wait for a connection. */
  waiting: number;
  refused: Refused[];
}

/** An answer of the server's, or why there is none. */
export type FromServer<Answer> =
  { ok: true; answer: Answer } | { ok: false; why: 'no connection' | 'not paired' | 'other'; says: string };

/** A passage to be shown as marked. */
export interface LiveHighlight {
  /** The highlight's. */
  id: string;
  kind: HighlightKind;
  passage: MarkedPassage;
}

/** What the library has on something. */
export interface Found {
  count: number;
  best: { title: string; source: string; link: string }[];
}

/** A page as it is read for its echoes. */
export interface LivePage {
  address: string;
  title: string;
  /** As the page states it; null when it does not. */
  language: string | null;
  text: string;
  /** Ranges of the text. */
  headings: TextRange[];
  pointedOut: TextRange[];
}

/** An echo of a page: a range of its text, and the items of the library that speak of it too. */
export interface LiveEcho extends TextRange {
  key: string;
  form: string;
  items: { title: string; source: string; minutes: number; passage: string; link: string }[];
  /** How many more there are. */
  more: number;
}

/**
 * What the extension's pages and the scripts in pages ask of the background, where all is done: a panel that closes
 * must not take a save with it.
 */
export interface Messages {
  status: { asked: null; answer: ExtensionStatus };
  pair: { asked: { code: string }; answer: FromServer<Account> };
  unpair: { asked: null; answer: null };
  /** What a menu has just saved, for the panel that opens over it; taken once. */
  justSaved: { asked: null; answer: { saved: Saved; what: string } | null };
  saveTab: { asked: { tabId: number }; answer: Saved };
  saveWindow: { asked: { windowId: number; tag: string | null }; answer: Batch | null };
  stopWindow: { asked: null; answer: null };
  batch: { asked: null; answer: Batch | null };
  /** Sends what waits, then asks what the library knows of an item. */
  known: { asked: { itemId: string }; answer: FromServer<KnownPage> };
  choose: { asked: { itemId: string; set: ItemChoices }; answer: null };
  /** Writes the note of an item; answers it as its writer knows it then. */
  note: { asked: { itemId: string; before: Note | null; text: string }; answer: Note | null };
  tag: { asked: { itemId: string; set: Record<string, string | null> }; answer: null };
  /** Puts things at the end of a dossier; answers what takes them out again. */
  putIn: { asked: { dossierId: string; end: string | null; parts: EntryPart[] }; answer: EntryMutation[] | null };
  takeOut: { asked: { entries: EntryMutation[] }; answer: null };
  howMuch: { asked: { itemId: string; tabId: number | null; howMuch: HowMuch }; answer: null };
  letGo: { asked: { itemIds: string[] }; answer: null };
  /** What is marked on a page; null when nothing is, or nothing is to be shown. */
  marksOn: { asked: { address: string }; answer: LiveHighlight[] | null };
  /** What the library has on what is looked for on a page that searches; null when there is nothing to say. */
  foundFor: { asked: { address: string }; answer: Found | null };
  /** Worked out from what the extension keeps; nobody is asked. Null where none are to be shown. */
  echoesIn: { asked: LivePage; answer: LiveEcho[] | null };
  silenceEcho: { asked: { what: Silenced; silenced: boolean }; answer: null };
  /** No echoes on this site any more. */
  leaveOutSite: { asked: { host: string }; answer: null };
  sendNow: { asked: null; answer: ExtensionStatus };
  forgetRefused: { asked: null; answer: null };
}
export type AskName = keyof Messages;

interface Message<Name extends AskName> {
  ask: Name;
  asked: Messages[Name]['asked'];
}

/** Asks the background. */
export async function ask<Name extends AskName>(
  name: Name,
  asked: Messages[Name]['asked'],
): Promise<Messages[Name]['answer']> {
  const message: Message<Name> = { ask: name, asked };
  return chrome.runtime.sendMessage<Message<Name>, Messages[Name]['answer']>(message);
}

type Answerers = { [Name in AskName]: (asked: Messages[Name]['asked']) => Promise<Messages[Name]['answer']> };

/**
 * Answers what is asked. Scripts in pages may ask only what `fromPages` names: a page that has been taken over must not
 * reach the rest.
 */
export function answerMessages(answerers: Answerers, fromPages: readonly AskName[]): void {
  chrome.runtime.onMessage.addListener((message: unknown, sender, respond) => {
    if (sender.id !== chrome.runtime.id || !isMessage(message, answerers)) return false;
    const isOwnPage = sender.url?.startsWith(chrome.runtime.getURL('')) ?? false;
    if (!isOwnPage && !fromPages.includes(message.ask)) return false;
    const answerer = answerers[message.ask] as (asked: unknown) => Promise<unknown>;
    void answerer(message.asked).then(respond);
    return true;
  });
}

function isMessage(message: unknown, answerers: Answerers): message is Message<AskName> {
  return (
    typeof message === 'object' &&
    message !== null &&
    'ask' in message &&
    typeof message.ask === 'string' &&
    Object.hasOwn(answerers, message.ask)
  );
}
