import type { HybridClock } from '@dorvel/core/sync';
import { simpleParser, type ParsedMail } from 'mailparser';
import type { Logger } from 'pino';
import { SMTPServer, type SMTPServerDataStream, type SMTPServerSession } from 'smtp-server';
import type { KnownMailbox, Mailboxes } from '../db/mailboxes';
import type { Library } from '../db/library';
import { saveFor } from '../save-for';
import { readMail } from './read-mail';

interface MailTools {
  mailboxes: Mailboxes;
  library(accountId: string): Library;
  clock: HybridClock;
  now(): number;
  /** So much mail for an account is taken in an hour; more is a flood, and told to come later. */
  mostAnHour: number;
  /** Called when something was saved for an account. */
  saved(accountId: string): void;
  log: Logger;
}

const LARGEST_MAIL = 10_000_000;
/** A letter that has come through more hands than this goes in circles (RFC 5321, 6.3). */
const MOST_HOPS = 50;

/** A refusal as SMTP says it: a reply code (RFC 5321) with an enhanced status code (RFC 3463). */
class Refusal extends Error {
  constructor(
    readonly responseCode: number,
    status: string,
    says: string,
  ) {
    super(`${status} ${says}`);
  }
}

/** Takes mail for accounts. What is taken has been saved when the sender is told so. */
export function mailListener(tools: MailTools): SMTPServer {
  const rates = new Map<string, number[]>();
  const boxes = new WeakMap<SMTPServerSession, KnownMailbox[]>();

  const checkRate = (accountId: string) => {
    const since = tools.now() - 60 * 60 * 1000;
    const lately = (rates.get(accountId) ?? []).filter((at) => at > since);
    if (lately.length >= tools.mostAnHour)
      throw new Refusal(451, '4.7.0', 'Too much mail for this address. Try again in an hour.');
    rates.set(accountId, [...lately, tools.now()]);
  };

  const recipient = async (address: string, session: SMTPServerSession) => {
    const box = await tools.mailboxes.named(address.split('@')[0] ?? '');
    if (!box) throw new Refusal(550, '5.1.1', 'There is no such address here.');
    const from = session.envelope.mailFrom === false ? '' : session.envelope.mailFrom.address;
    // Notices of non-delivery and the like have no sender (RFC 5321, 4.5.5): nobody wants to read them later.
    if (from === '') throw new Refusal(550, '5.7.1', 'This address takes no notices of delivery.');
    if (!mayFrom(box, from)) throw new Refusal(550, '5.7.1', 'Its owner takes no mail from you.');
    boxes.set(session, [...(boxes.get(session) ?? []), box]);
  };

  const message = async (stream: SMTPServerDataStream, session: SMTPServerSession) => {
    const raw = await received(stream);
    const mail = await simpleParser(raw, { skipImageLinks: true });
    checkLoop(mail);
    const wishes = readMail(mail, raw);
    if (wishes.length === 0)
      throw new Refusal(554, '5.6.0', 'There is nothing in this mail that could be saved.');
    const sender = mail.from?.value[0]?.address ?? '';
    const to = boxes.get(session) ?? [];
    if (!to.every((box) => mayFrom(box, sender)))
      throw new Refusal(550, '5.7.1', 'Its owner takes no mail from you.');
    to.forEach((box) => checkRate(box.accountId));
    for (const { accountId } of to) {
      await tools.library(accountId).change(async (write) => {
        for (const wish of wishes) await saveFor(write, wish, tools);
      });
      tools.saved(accountId);
    }
  };

  /** What went wrong is told in SMTP's words; what nobody foresaw is written down, and the sender may try again. */
  const settled = (work: Promise<void>, done: (error?: Error | null) => void) => {
    work.then(
      () => done(),
      (error: unknown) => {
        if (!(error instanceof Refusal)) tools.log.error({ err: error }, 'mail not taken');
        done(
          error instanceof Refusal
            ? error
            : new Refusal(451, '4.3.0', 'Something went wrong. Try again later.'),
        );
      },
    );
  };

  const server = new SMTPServer({
    disabledCommands: ['AUTH', 'STARTTLS'],
    size: LARGEST_MAIL,
    banner: 'Dorvel takes what is to be read later',
    maxClients: 50,
    socketTimeout: 60_000,
    disableReverseLookup: true,
    logger: false,
    onMailFrom(_address, session, done) {
      boxes.delete(session);
      done();
    },
    onRcptTo: ({ address }, session, done) => settled(recipient(address, session), done),
    onData: (stream, session, done) => settled(message(stream, session), done),
  });
  server.on('error', (error) => tools.log.warn({ err: error }, 'mail connection'));
  return server;
}

function mayFrom({ senders }: KnownMailbox, from: string): boolean {
  const sender = from.toLowerCase();
  return (
    senders.length === 0 ||
    senders.some((each) => sender === each || (each.startsWith('@') && sender.endsWith(each)))
  );
}

async function received(stream: SMTPServerDataStream): Promise<Buffer> {
  const parts: Buffer[] = [];
  let bytes = 0;
  // To its end, also when it is too large: only then may be answered.
  for await (const part of stream as AsyncIterable<Buffer>) {
    bytes += part.length;
    if (bytes <= LARGEST_MAIL) parts.push(part);
  }
  if (bytes > LARGEST_MAIL || stream.sizeExceeded)
    throw new Refusal(552, '5.3.4', `A mail may have ${LARGEST_MAIL / 1_000_000} MB.`);
  return Buffer.concat(parts);
}

/** RFC 3834: what was sent by a machine in answer to mail is not to be answered, nor kept. */
function checkLoop({ headers, headerLines }: ParsedMail): void {
  const automatic = headers.get('auto-submitted');
  if (typeof automatic === 'string' && /^auto-(?:replied|notified)/i.test(automatic))
    throw new Refusal(554, '5.7.1', 'This address takes no automatic replies.');
  if (headerLines.filter(({ key }) => key === 'received').length > MOST_HOPS)
    throw new Refusal(554, '5.4.6', 'This mail goes in circles.');
}
