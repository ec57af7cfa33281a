import escape from 'escape-html';
import type { Letter } from './come-back';
import { PAGE_PALETTES } from './dossier-style';

/**
 * The letter to who has forgotten their passphrase.
 *
 * @param minutes how long the code is good
 */
export function codeLetter(code: string, minutes: number): Letter {
  const { ink, soft, ground } = PAGE_PALETTES.day;
  const before = 'Somebody, you most likely, asked Dorvel for a code to choose another passphrase with:';
  const after = `Type it where you asked for it, within ${minutes} minutes. If it was not you, do nothing: your passphrase stays as it is, and nobody was told whether you have an account.`;
  return {
    subject: 'A code for your passphrase',
    text: `${before}\n\n${code}\n\n${after}\n`,
    html: `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>A code for your passphrase</title></head><body style="margin:0;padding:20px;background:${ground};color:${ink};font-family:Georgia,serif;font-size:17px;line-height:1.5"><div style="max-width:560px;margin:0 auto"><p>${before}</p><p style="font:700 22px monospace">${escape(code)}</p><p style="color:${soft}">${after}</p></div></body></html>`,
  };
}
