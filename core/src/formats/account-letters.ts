import escape from 'escape-html';
import type { AccountEventKind } from '../model';
import type { Letter } from './come-back';
import { PAGE_PALETTES } from './dossier-style';

/**
 * The letter to who has forgotten their passphrase.
 *
 * @param minutes how long the code is good
 */
export function codeLetter(code: string, minutes: number): Letter {
  return letter('A code for your passphrase', [
    'Somebody, you most likely, asked Dorvel for a code to choose another passphrase with:',
    { large: code },
    `Type it where you asked for it, within ${minutes} minutes. If it was not you, do nothing: your passphrase stays as it is, and nobody was told whether you have an account.`,
  ]);
}

/**
 * The letter to whose account was opened on a device that it was never opened on before.
 *
 * @param where the device and its network address, in words
 * @param account where its sessions are seen and ended
 */
export function newDeviceLetter(where: string, account: string): Letter {
  return letter('Signed in on another device', [
    'Your Dorvel was opened on a device that it was not open on before:',
    { large: where },
    `If that was you, all is well. If it was not, end that session and change your passphrase: ${account}`,
  ]);
}

/** What of an account's log a letter tells, too: what has to do with who can open it. */
export const LETTER_KINDS = [
  'passphrase-changed',
  'passphrase-by-code',
  'passkey-added',
  'passkey-removed',
  'passkeys-only',
  'passphrase-opens',
  'passphrase-without-passkey',
  'wrong-passphrase',
] as const satisfies readonly AccountEventKind[];
export type LetterKind = (typeof LETTER_KINDS)[number];

const CHANGED =
  'The passphrase of your Dorvel was changed, and what was open on other devices has ended. It was done from:';
const SAYS: Readonly<Record<LetterKind, { subject: string; what: string }>> = {
  'passphrase-changed': { subject: 'Your passphrase was changed', what: CHANGED },
  'passphrase-by-code': { subject: 'Your passphrase was changed', what: CHANGED },
  'passkey-added': {
    subject: 'A passkey was added',
    what: 'Another passkey opens your Dorvel now. It was added from:',
  },
  'passkey-removed': {
    subject: 'A passkey was removed',
    what: 'A passkey opens your Dorvel no more. It was removed from:',
  },
  'passkeys-only': {
    subject: 'Only a passkey opens your Dorvel now',
    what: 'Your passphrase alone does not open your Dorvel any more. That was chosen from:',
  },
  'passphrase-opens': {
    subject: 'Your passphrase opens your Dorvel again',
    what: 'Your Dorvel is opened by your passphrase again, without a passkey. That was chosen from:',
  },
  'passphrase-without-passkey': {
    subject: 'Somebody has your passphrase',
    what: 'Your right passphrase was given, and no passkey. Nobody was let in. It came from:',
  },
  'wrong-passphrase': {
    subject: 'Wrong passphrases were tried',
    what: 'Somebody tried to open your Dorvel with several wrong passphrases today. Nobody was let in by them. The last came from:',
  },
};

/**
 * The letter that tells of a change in who can open an account, or of somebody who tried to.
 *
 * @param where the device and its network address, in words
 * @param account where all that was done with it is seen, and the passphrase is changed
 */
export function accountLetter(kind: LetterKind, where: string, account: string): Letter {
  const { subject, what } = SAYS[kind];
  return letter(subject, [
    what,
    { large: where },
    `If that was you, all is well. If it was not, look at what has happened and change your passphrase: ${account}`,
  ]);
}

/** @param parts paragraphs; one that is `large` is what the letter is about */
function letter(subject: string, parts: readonly (string | { large: string })[]): Letter {
  const { ink, ground } = PAGE_PALETTES.day;
  const paragraph = (part: string | { large: string }) =>
    typeof part === 'string'
      ? `<p>${escape(part)}</p>`
      : `<p style="font:700 22px monospace">${escape(part.large)}</p>`;
  return {
    subject,
    text: `${parts.map((part) => (typeof part === 'string' ? part : part.large)).join('\n\n')}\n`,
    html: `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escape(subject)}</title></head><body style="margin:0;padding:20px;background:${ground};color:${ink};font-family:Georgia,serif;font-size:17px;line-height:1.5"><div style="max-width:560px;margin:0 auto">${parts.map(paragraph).join('')}</div></body></html>`,
  };
}
