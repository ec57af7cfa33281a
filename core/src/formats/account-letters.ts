import escape from 'escape-html';
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
