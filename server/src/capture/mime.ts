import type { Cause } from '@dorvel/core/model';
import { type AddressObject, type ParsedMail, simpleParser } from 'mailparser';

/** A file that came along with a text, under the address by which the text speaks of it. */
export interface Attached {
  address: string;
  body: Buffer;
}

type Mime =
  | {
      ok: true;
      html: string;
      address: string;
      attached: Attached[];
      /** Set for a letter, null for a saved page. */
      letter: {
        subject: string | null;
        from: string[];
        /** The domain that it was sent from. */
        site: string | null;
        date: string | null;
      } | null;
    }
  | { ok: false; cause: Cause };

/** Where files that are only named by a content id are thought to lie. Reserved by RFC 2606. */
const ATTACHED = 'https://attached.invalid/';

/**
 * A page saved with its pictures (MHTML, RFC 2557) or a letter (RFC 5322) as HTML with the files that belong to it.
 *
 * @param url where it was found; a saved page's own word for its address is believed more
 */
export async function readMime(bytes: Buffer, url: string): Promise<Mime> {
  const mail = await simpleParser(bytes, { skipImageLinks: true, skipTextToHtml: false });
  const saved = savedFrom(mail);
  const html = (mail.html === false ? undefined : mail.html) ?? mail.textAsHtml ?? '';
  if (html.trim() === '') return { ok: false, cause: { code: 'file-without-text' } };
  const attached = mail.attachments.flatMap((file): Attached[] => {
    if (!file.contentType.startsWith('image/')) return [];
    const location = headerOf(file.headers, 'content-location');
    const names = [
      file.cid ? `${ATTACHED}${encodeURIComponent(file.cid)}` : null,
      location && URL.canParse(location, saved ?? url) ? new URL(location, saved ?? url).href : null,
    ];
    return names.flatMap((address) => (address ? [{ address, body: file.content }] : []));
  });
  return {
    ok: true,
    html: html.replace(/\bcid:([^"'\s)>]+)/gi, (_, id: string) => `${ATTACHED}${encodeURIComponent(id)}`),
    address: saved ?? url,
    attached,
    letter: isLetter(mail)
      ? {
          subject: mail.subject ?? null,
          from: namesOf(mail.from),
          site: domainOf(mail.from),
          date: mail.date?.toISOString() ?? null,
        }
      : null,
  };
}

/** The address that a saved page was saved from. */
function savedFrom(mail: ParsedMail): string | null {
  const stated = headerOf(mail.headers, 'snapshot-content-location') ?? headerOf(mail.headers, 'content-location');
  return stated && /^https?:/.test(stated) && URL.canParse(stated) ? stated : null;
}

/** Browsers write saved pages as letters to nobody. */
function isLetter(mail: ParsedMail): boolean {
  return mail.to !== undefined || mail.messageId !== undefined;
}

function domainOf(from: AddressObject | undefined): string | null {
  return from?.value[0]?.address?.split('@')[1]?.toLowerCase() ?? null;
}

function namesOf(from: AddressObject | undefined): string[] {
  return (from?.value ?? []).flatMap(({ name, address }) => (name === '' ? address : name) ?? []);
}

function headerOf(headers: ParsedMail['headers'], name: string): string | null {
  const value = headers.get(name);
  return typeof value === 'string' ? value : null;
}
