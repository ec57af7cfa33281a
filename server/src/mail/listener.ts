import type { HybridClock } from '@dorvel/core/sync';
import type { Logger } from 'pino';
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';
import { SMTPServer, type SMTPServerDataStream, type SMTPServerSession } from 'smtp-server';
import type { KnownMailbox, Mailboxes } from '../accounts/mailboxes';
import { GivenUp, type Workshop } from '../apart/workshop';
import type { Library } from '../library/library';
import { saveFor } from '../library/save-for';
import type { ReadLetter } from './read-mail';

interface MailTools {
  mailboxes: Mailboxes;
  library(accountId: string): Library;
  /** Where letters are read; with the tasks of tasks/texts.child.ts. */
  workshop: Workshop;
  /** The clock of an account. */
  clockOf(accountId: string): HybridClock;
  now(): number;
  /** So much mail for an account is taken in an hour; more is a flood, and told to come later. */
  mostAnHour: number;
  /** Called when something was saved for an account. */
  saved(accountId: string): void;
  log: Logger;
}

const MAX_MAIL_SIZE = 10_000_000;
const READ_LIMIT_MS = 10_000;

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
  const rate = new RateLimiterMemory({ points: tools.mostAnHour, duration: 60 * 60 });
  const boxes = new WeakMap<SMTPServerSession, KnownMailbox[]>();

  const checkRate = async (accountId: string) => {
    try {
      await rate.consume(accountId);
    } catch (refused) {
      if (!(refused instanceof RateLimiterRes)) throw refused;
      throw new Refusal(451, '4.7.0', 'Too much mail for this address. Try again in an hour.');
    }
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
    const { sender, isAutomatic, goesInCircles, requests: wishes } = await readApart(raw, tools.workshop);
    if (isAutomatic) throw new Refusal(554, '5.7.1', 'This address takes no automatic replies.');
    if (goesInCircles) throw new Refusal(554, '5.4.6', 'This mail goes in circles.');
    if (wishes.length === 0) throw new Refusal(554, '5.6.0', 'There is nothing in this mail that could be saved.');
    const to = boxes.get(session) ?? [];
    if (!to.every((box) => mayFrom(box, sender))) throw new Refusal(550, '5.7.1', 'Its owner takes no mail from you.');
    for (const box of to) await checkRate(box.accountId);
    for (const { accountId } of to) {
      const clock = tools.clockOf(accountId);
      const outcomes = await tools.library(accountId).change(async (write) => {
        const all = [];
        for (const wish of wishes) all.push(await saveFor(write, wish, { clock, now: tools.now }));
        return all;
      });
      const refused = outcomes.flatMap((each) => (each.ok ? [] : [each.says]));
      if (outcomes.some(({ ok }) => ok)) {
        await tools.mailboxes.used(accountId, tools.now());
        tools.saved(accountId);
      }
      // Who is told that it was taken sends no more of it: nothing of what was refused may be passed over.
      if (refused.length === outcomes.length)
        throw new Refusal(554, '5.6.0', `It could not be saved: ${oneLine(refused[0] ?? '')}`);
      if (refused.length > 0) tools.log.warn({ accountId, refused: refused.length }, 'a part of a mail was not saved');
    }
  };

  /** What went wrong is told in SMTP's words; what nobody foresaw is written down, and the sender may try again. */
  const settled = (work: Promise<void>, done: (error?: Error | null) => void) => {
    work.then(
      () => done(),
      (error: unknown) => {
        if (!(error instanceof Refusal)) tools.log.error({ err: error }, 'mail not taken');
        done(error instanceof Refusal ? error : new Refusal(451, '4.3.0', 'Something went wrong. Try again later.'));
      },
    );
  };

  const server = new SMTPServer({
    disabledCommands: ['AUTH', 'STARTTLS'],
    size: MAX_MAIL_SIZE,
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
    senders.length === 0 || senders.some((each) => sender === each || (each.startsWith('@') && sender.endsWith(each)))
  );
}

async function received(stream: SMTPServerDataStream): Promise<Buffer> {
  const parts: Buffer[] = [];
  let bytes = 0;
  // To its end, also when it is too large: only then may be answered.
  for await (const part of stream as AsyncIterable<Buffer>) {
    bytes += part.length;
    if (bytes <= MAX_MAIL_SIZE) parts.push(part);
  }
  if (bytes > MAX_MAIL_SIZE || stream.sizeExceeded)
    throw new Refusal(552, '5.3.4', `A mail may have ${MAX_MAIL_SIZE / 1_000_000} MB.`);
  return Buffer.concat(parts);
}

/** A letter that cannot be read today cannot be read tomorrow: it is refused for good, so that nobody tries for days. */
async function readApart(raw: Buffer, workshop: Workshop): Promise<ReadLetter> {
  try {
    return (await workshop.run('letter', raw, READ_LIMIT_MS)) as ReadLetter;
  } catch (error) {
    // Not the letter's fault: whoever sends it may try again.
    if (error instanceof GivenUp && error.why === 'ended') throw error;
    const says =
      error instanceof GivenUp ? 'This mail is built so that it cannot be read safely.' : 'This mail cannot be read.';
    throw new Refusal(554, '5.6.0', says);
  }
}

/** As it may stand in an answer of SMTP: on one line, in ASCII. */
function oneLine(says: string): string {
  return says.replace(/[^\x20-\x7e]+/g, ' ').slice(0, 200);
}
