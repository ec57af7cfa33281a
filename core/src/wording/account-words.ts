import type { AccountEvent } from '../model';

/** What was done with an account, as its log says it. */
export function accountEventWords({ kind, about }: Pick<AccountEvent, 'kind' | 'about'>): string {
  const what = about === null ? '' : `: ${about}`;
  switch (kind) {
    case 'account-made':
      return 'The account was made';
    case 'signed-in':
      return 'Signed in';
    case 'signed-in-by-passkey':
      return `Signed in with a passkey${what}`;
    case 'wrong-passphrase':
      return 'A wrong passphrase was tried';
    case 'passphrase-without-passkey':
      return 'The right passphrase was given, and no passkey: not let in';
    case 'session-ended':
      return `A session was ended${what}`;
    case 'passphrase-changed':
      return 'Passphrase changed';
    case 'passphrase-by-code':
      return 'Passphrase chosen anew, by a code';
    case 'code-asked':
      return 'A code for another passphrase was sent';
    case 'passkey-added':
      return `Passkey added${what}`;
    case 'passkey-removed':
      return `Passkey removed${what}`;
    case 'passkeys-only':
      return 'Only a passkey opens it from here on';
    case 'passphrase-opens':
      return 'The passphrase opens it again';
    case 'token-made':
      return `Let in to save${what}`;
    case 'token-revoked':
      return `Not let in to save any more${what}`;
    case 'invited':
      return 'An invitation was made';
    case 'archive-taken':
      return 'The library was taken as a file';
    case 'dossier-handed-on':
      return `A dossier was given an address${what}`;
    case 'podcast-made':
      return 'The podcast was given an address';
  }
}

/** From where it was done: `Firefox on Linux, from 192.0.2.7`. */
export function callerWords({ device, place }: Pick<AccountEvent, 'device' | 'place'>): string {
  return `${device || 'A device that does not say what it is'}${place === '' ? '' : `, from ${place}`}`;
}
