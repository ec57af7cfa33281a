import { clientOf } from '@dorvel/core/client';
import {
  Account,
  AccountOverview,
  Copy,
  type DossierFormat,
  FindResponse,
  LetterSent,
  MadeInvitation,
  MadeToken,
  Mailbox,
  type NewAccount,
  type NewPasskey,
  type NewToken,
  NightlyArchive,
  Passkey,
  PasskeyOptions,
  type PasskeySignIn,
  type PassphraseByCode,
  type PassphraseChange,
  Podcast,
  Publication,
  type PublicationWish,
  Reminders,
  type SearchRequest,
  Setup,
  TokenList,
} from '@dorvel/core/model';
import type { Mutation } from '@dorvel/core/records';
import { PullResponse, PushResponse } from '@dorvel/core/sync';
import type { z } from 'zod';

const { read, send, file, toldFile } = clientOf({
  base: '/api',
  credentials: 'same-origin',
  fetch: (...words) => fetch(...words),
});

/** The server's routes, each answer parsed. Every call may throw ServerProblem or Unreachable. */
export const api = {
  setup: () => read(Setup, 'GET', '/setup'),
  signIn: (mail: string, passphrase: string) => read(Account, 'POST', '/session', { mail, passphrase }),
  createAccount: (account: z.infer<typeof NewAccount>) => read(Account, 'POST', '/accounts', account),
  signOut: () => send('DELETE', '/session'),
  askPasskey: () => read(PasskeyOptions, 'POST', '/session/passkey/options', {}),
  signInByPasskey: (answer: z.input<typeof PasskeySignIn>) => read(Account, 'POST', '/session/passkey', answer),
  askCode: (mail: string) => send('POST', '/reset', { mail }),
  passphraseByCode: (wish: z.input<typeof PassphraseByCode>) => read(Account, 'POST', '/reset/passphrase', wish),
  account: () => read(AccountOverview, 'GET', '/account'),
  changePassphrase: (change: PassphraseChange) => send('PUT', '/account/passphrase', change),
  endSession: (id: string) => send('DELETE', `/account/sessions/${id}`),
  endOtherSessions: () => send('DELETE', '/account/sessions'),
  invite: () => read(MadeInvitation, 'POST', '/account/invitations', {}),
  withdrawInvitation: (id: string) => send('DELETE', `/account/invitations/${id}`),
  askNewPasskey: (passphrase: string) => read(PasskeyOptions, 'POST', '/account/passkeys/options', { passphrase }),
  addPasskey: (passkey: z.input<typeof NewPasskey>) => read(Passkey, 'POST', '/account/passkeys', passkey),
  removePasskey: (id: string) => send('DELETE', `/account/passkeys/${id}`),
  eraseAccount: (passphrase: string) => send('POST', '/account/erase', { passphrase }),
  push: (mutations: Mutation[]) => read(PushResponse, 'POST', '/sync/push', { mutations }),
  pull: (after: number) => read(PullResponse, 'GET', `/sync/pull?after=${after}`),
  find: (question: SearchRequest, passages: number) =>
    read(FindResponse, 'POST', '/find', { ...question, from: 0, passages }),
  podcast: () => read(Podcast, 'GET', '/podcast'),
  makePodcast: () => read(Podcast, 'POST', '/podcast', {}),
  endPodcast: () => read(Podcast, 'DELETE', '/podcast'),
  reminders: () => read(Reminders, 'GET', '/reminders'),
  setLetter: (hour: number | null, zone: string) => read(Reminders, 'PUT', '/reminders/letter', { hour, zone }),
  sendLetterNow: () => read(LetterSent, 'POST', '/reminders/letter/now', {}),
  makeReminderFeed: (zone: string) => read(Reminders, 'POST', '/reminders/feed', { zone }),
  endReminderFeed: () => read(Reminders, 'DELETE', '/reminders/feed'),
  publication: (dossierId: string) => read(Publication, 'GET', `/dossiers/${dossierId}/publication`),
  publish: (dossierId: string, wish: z.input<typeof PublicationWish>) =>
    read(Publication, 'PUT', `/dossiers/${dossierId}/publication`, wish),
  withdraw: (dossierId: string) => read(Publication, 'DELETE', `/dossiers/${dossierId}/publication`),
  dossierFile: (
    dossierId: string,
    format: DossierFormat,
    step: (done: number, of: number) => void,
    signal: AbortSignal,
  ) => toldFile(`/dossiers/${dossierId}/files/${format}?told=true`, step, signal),
  sendDossier: (dossierId: string, to: string, words: string) =>
    send('POST', `/dossiers/${dossierId}/letter`, { to, words }),
  /** @param address on our own origin, as texts and items have it */
  picture: (address: string) => file(address.replace(/^\/api/, '')),
  nightlyArchive: () => read(NightlyArchive, 'GET', '/archive/nightly'),
  mailbox: () => read(Mailbox, 'GET', '/mailbox'),
  allowSenders: (senders: string[]) => read(Mailbox, 'PUT', '/mailbox', { senders }),
  renameMailbox: () => read(Mailbox, 'POST', '/mailbox/rename', {}),
  tokens: () => read(TokenList, 'GET', '/tokens'),
  makeToken: (token: z.infer<typeof NewToken>) => read(MadeToken, 'POST', '/tokens', token),
  revokeToken: (id: string) => send('DELETE', `/tokens/${id}`),
  copy: (id: string) => read(Copy, 'GET', `/copies/${id}`),
};
