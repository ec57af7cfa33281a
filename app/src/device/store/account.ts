import { Account, type NewAccount, type PassphraseByCode } from '@dorvel/core/model';
import type { z } from 'zod';
import { create } from 'zustand';
import { PICTURE_CACHE } from '@/device/cache/picture-cache';
import { api } from '@/device/sync/api';
import { answerPasskey } from '@/device/sync/passkeys';
import { journalledChanges, unsentChanges } from './journal';
import { readSetting, writeSetting } from './settings-storage';
import { DeviceStore } from './store';

interface AccountState {
  /** Whose library is on this device; null before anyone has signed in. */
  account: Account | null;
  store: DeviceStore | null;
  /** True when the server no longer knows our session: reading goes on, sending waits. */
  needsSignIn: boolean;
  signIn(mail: string, passphrase: string): Promise<void>;
  createAccount(account: z.infer<typeof NewAccount>): Promise<void>;
  signInByPasskey(): Promise<void>;
  /** Chooses another passphrase by a code, and signs in. */
  passphraseByCode(wish: z.input<typeof PassphraseByCode>): Promise<void>;
  /** Erases the account on the server, and takes the library off this device. */
  erase(passphrase: string): Promise<void>;
  /** Ends the session and takes the library off this device. */
  signOut(): Promise<void>;
  sessionLost(): void;
}

const remembered = readSetting('account', Account.nullable(), null);

export const useAccount = create<AccountState>()((set, get) => {
  const enter = (account: Account) => {
    writeSetting('account', account);
    const { account: before, store } = get();
    set({
      account,
      needsSignIn: false,
      store: store && before?.id === account.id ? store : new DeviceStore(account.id),
    });
  };
  /** Takes the library off this device. */
  const leave = async () => {
    const { account, store } = get();
    if (account) for (const { done } of [...journalledChanges(account.id), ...unsentChanges(account.id)]) done();
    writeSetting('account', null);
    set({ account: null, store: null, needsSignIn: false });
    await store?.delete();
    await caches.delete(PICTURE_CACHE);
  };
  return {
    account: remembered,
    store: remembered && new DeviceStore(remembered.id),
    needsSignIn: false,
    signIn: async (mail, passphrase) => enter(await api.signIn(mail, passphrase)),
    createAccount: async (account) => enter(await api.createAccount(account)),
    signInByPasskey: async () => enter(await api.signInByPasskey(await answerPasskey(await api.askPasskey()))),
    passphraseByCode: async (wish) => enter(await api.passphraseByCode(wish)),
    async erase(passphrase) {
      await api.eraseAccount(passphrase);
      await leave();
    },
    async signOut() {
      await api.signOut();
      await leave();
    },
    sessionLost: () => set({ needsSignIn: true }),
  };
});
