import { createHash } from 'node:crypto';
import { fileAddress, letterAddress, readAddresses } from '@dorvel/core/address';
import type { GivenText } from '@dorvel/core/model';
import { type ParsedMail, simpleParser } from 'mailparser';

/** What is to be saved of a mail. */
export interface MailRequest {
  address: string;
  given?: GivenText;
  note?: string;
  tags: string[];
}

/** With more words than this around its addresses, a mail is a letter and not a note on some links. */
const MAX_NOTE_WORDS = 80;
const MAX_PAGES = 20;
const MAX_FILES = 10;

/** A letter that has come through more hands than this goes in circles (RFC 5321, 6.3). */
const MAX_HOPS = 50;

/** A letter as far as it decides what is to be done with it. */
export interface ReadLetter {
  /** The mail address of its sender, as the letter itself has it; empty for none. */
  sender: string;
  /** It was sent by a machine in answer to mail, and is neither to be answered nor kept (RFC 3834). */
  isAutomatic: boolean;
  goesInCircles: boolean;
  requests: MailRequest[];
}

/** Reads a letter (RFC 5322, MIME). Runs in a workshop: letters are built by strangers. @throws when it cannot be read */
export async function readLetter(raw: Buffer): Promise<ReadLetter> {
  const mail = await simpleParser(raw, { skipImageLinks: true });
  const automatic = mail.headers.get('auto-submitted');
  return {
    sender: mail.from?.value[0]?.address ?? '',
    isAutomatic: typeof automatic === 'string' && /^auto-(?:replied|notified)/i.test(automatic),
    goesInCircles: mail.headerLines.filter(({ key }) => key === 'received').length > MAX_HOPS,
    requests: readMail(mail, raw),
  };
}

/**
 * What a mail asks for. A few words with addresses in them ask for those pages, the words being the note on each; files of text
 * (HTML, PDF) are items of their own; all else is a letter to be read. `#words` of the subject are tags.
 *
 * @param raw the mail as it came
 */
export function readMail(mail: ParsedMail, raw: Buffer): MailRequest[] {
  const tags = subjectTags(mail.subject ?? '');
  const files = mail.attachments.flatMap((file): MailRequest[] => {
    const type = FILE_TYPES[file.contentType.toLowerCase()];
    if (!type || file.related) return [];
    const address = fileAddress(createHash('sha256').update(file.content).digest('base64url'));
    const body = file.content.toString('base64');
    const name = file.filename?.slice(0, 300);
    const given = { type, body, encoding: 'base64' as const, ...(name ? { name } : {}) };
    return body === '' ? [] : [{ address, given, tags }];
  });
  const kept = files.slice(0, MAX_FILES);
  const text = withoutSignature(mail.text ?? '');
  const { addresses } = readAddresses(text);
  const note = noteOf(text);
  const isShort = note.split(/\s+/).length <= MAX_NOTE_WORDS && !isFromList(mail);
  const noted = <SaveRequest extends MailRequest>(wish: SaveRequest): SaveRequest =>
    note === '' ? wish : { ...wish, note };
  if (isShort && addresses.length > 0)
    return [...addresses.slice(0, MAX_PAGES).map((address) => noted({ address, tags })), ...kept];
  if (isShort && kept.length > 0) return kept.map(noted);
  if (text.trim() === '' && !mail.html) return kept;
  const id = mail.messageId ?? createHash('sha256').update(raw).digest('base64url');
  return [
    {
      address: letterAddress(id),
      given: { type: 'message/rfc822', body: raw.toString('base64'), encoding: 'base64' },
      tags,
    },
    ...kept,
  ];
}

const FILE_TYPES: Readonly<Record<string, GivenText['type']>> = {
  'text/html': 'text/html',
  'application/xhtml+xml': 'text/html',
  'application/pdf': 'application/pdf',
  'application/x-pdf': 'application/pdf',
  'application/epub+zip': 'application/epub+zip',
};

/** `#words` in a subject; a stroke nests. */
function subjectTags(subject: string): string[] {
  return [...subject.matchAll(/(?<=^|\s)#([\p{L}\p{N}][\p{L}\p{N}_/-]*)/gu)].map(([, tag = '']) => tag);
}

/** What stands above the mark of a signature (RFC 3676, 4.3) and the line that phones put below (common practice). */
function withoutSignature(text: string): string {
  return text
    .replace(/^-- ?\r?\n[^]*$/m, '')
    .trimEnd()
    .replace(/\n[^\S\n]*(?:Sent from (?:my|a) |Von meinem |Envoyé (?:de|depuis) )[^\n]{0,60}$/u, '')
    .trimEnd();
}

/** The reader's own words: without the addresses and the quoted lines. */
function noteOf(text: string): string {
  return text
    .split(/\r?\n/)
    .filter((line) => !line.startsWith('>'))
    .join('\n')
    .replace(/<?https?:\/\/[^\s<>"']+>?/gi, '')
    .replace(/[ \t]+/g, ' ')
    .replace(/ ?\n ?/g, '\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
}

/** Sent to many: a newsletter, also a short one, is to be read itself (RFC 2369, RFC 2919). */
function isFromList({ headers }: ParsedMail): boolean {
  return headers.has('list') || headers.has('list-id') || headers.get('precedence') === 'bulk';
}
