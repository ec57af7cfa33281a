import { randomBytes } from 'node:crypto';
import type { Account, Passkey } from '@dorvel/core/model';
import {
  type AuthenticationResponseJSON,
  generateAuthenticationOptions,
  generateRegistrationOptions,
  type RegistrationResponseJSON,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from '@simplewebauthn/server';
import { and, asc, eq, gt, isNull, lt } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import type { Database } from '../db/open';
import { accounts, challenges, passkeys } from '../db/schema';

/** How long an authenticator, and who stands before it, may take. */
const TICKET_LIFE_MS = 5 * 60 * 1000;

/** By what name a browser knows this server; passkeys belong to it. */
export interface Site {
  /** `https://dorvel.example.org` */
  origin: string;
  /** `dorvel.example.org` */
  host: string;
}

/** What an authenticator is asked, and by what its answer is known. */
interface Asked<Options> {
  ticket: string;
  options: Options;
}

const Transports = z.array(z.string().max(50)).max(20).catch([]);

/**
 * Passkeys: W3C Web Authentication, level 3. An authenticator signs a challenge that it is given once; which one it was is
 * found by a ticket, and it is used up by any answer.
 */
export function passkeyRepository(database: Database, now: () => number) {
  const ofAccount = (accountId: string) => eq(passkeys.accountId, accountId);

  const remember = async (challenge: string, accountId: string | null): Promise<string> => {
    const ticket = randomBytes(24).toString('base64url');
    await database.write(async (tx) => {
      await tx.delete(challenges).where(lt(challenges.expiresAt, now()));
      await tx.insert(challenges).values({ ticket, challenge, accountId, expiresAt: now() + TICKET_LIFE_MS });
    });
    return ticket;
  };

  const recall = async (ticket: string, accountId: string | null): Promise<string | null> => {
    const whose = accountId === null ? isNull(challenges.accountId) : eq(challenges.accountId, accountId);
    const [row] = await database.write((tx) =>
      tx
        .delete(challenges)
        .where(and(eq(challenges.ticket, ticket), whose, gt(challenges.expiresAt, now())))
        .returning({ challenge: challenges.challenge }),
    );
    return row?.challenge ?? null;
  };

  return {
    async askToMake(account: Account, { host }: Site) {
      const known = await database.read
        .select({ id: passkeys.credentialId, transports: passkeys.transports })
        .from(passkeys)
        .where(ofAccount(account.id));
      const options = await generateRegistrationOptions({
        rpName: 'Dorvel',
        rpID: host,
        userName: account.mail,
        userDisplayName: account.name,
        userID: Uint8Array.from(Buffer.from(account.id)),
        attestationType: 'none',
        excludeCredentials: known.map(({ id, transports }) => ({ id, transports: Transports.parse(transports) })),
        // It must say by itself whose it is, and check who holds it: it stands for mail address and passphrase.
        authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
      });
      return { ticket: await remember(options.challenge, account.id), options } satisfies Asked<typeof options>;
    },

    /** @returns null when it does not answer what was asked @throws what the package finds wrong with the answer */
    async make(
      account: Account,
      { ticket, name, credential }: { ticket: string; name: string; credential: object },
      site: Site,
    ): Promise<Passkey | null> {
      const expectedChallenge = await recall(ticket, account.id);
      if (expectedChallenge === null) return null;
      const { verified, registrationInfo } = await verifyRegistrationResponse({
        response: credential as RegistrationResponseJSON,
        ...{ expectedChallenge, expectedOrigin: site.origin, expectedRPID: site.host },
      });
      if (!verified) return null;
      const { id: credentialId, publicKey, counter, transports } = registrationInfo.credential;
      const passkey = { id: uuidv7(), name, madeAt: now(), lastUsedAt: null };
      const made = await database.write((tx) =>
        tx
          .insert(passkeys)
          .values({
            ...passkey,
            ...{ accountId: account.id, credentialId, counter },
            publicKey: Buffer.from(publicKey).toString('base64url'),
            transports: Transports.parse(transports),
          })
          .onConflictDoNothing()
          .returning({ id: passkeys.id }),
      );
      return made.length > 0 ? passkey : null;
    },

    async askToSignIn({ host }: Site) {
      const options = await generateAuthenticationOptions({ rpID: host, userVerification: 'required' });
      return { ticket: await remember(options.challenge, null), options } satisfies Asked<typeof options>;
    },

    /** @returns whose it is; null when it opens nothing @throws what the package finds wrong with the answer */
    async whose(
      { ticket, credential }: { ticket: string; credential: { id: string } },
      site: Site,
    ): Promise<{ account: Account; name: string } | null> {
      const expectedChallenge = await recall(ticket, null);
      const [row] = await database.read
        .select({ passkey: passkeys, account: { id: accounts.id, mail: accounts.mail, name: accounts.name } })
        .from(passkeys)
        .innerJoin(accounts, eq(accounts.id, passkeys.accountId))
        .where(eq(passkeys.credentialId, credential.id));
      if (expectedChallenge === null || !row) return null;
      const { passkey, account } = row;
      const { verified, authenticationInfo } = await verifyAuthenticationResponse({
        response: credential as AuthenticationResponseJSON,
        ...{ expectedChallenge, expectedOrigin: site.origin, expectedRPID: site.host },
        credential: {
          id: passkey.credentialId,
          publicKey: Uint8Array.from(Buffer.from(passkey.publicKey, 'base64url')),
          counter: passkey.counter,
        },
      });
      if (!verified) return null;
      const used = { counter: authenticationInfo.newCounter, lastUsedAt: now() };
      await database.write((tx) => tx.update(passkeys).set(used).where(eq(passkeys.id, passkey.id)));
      return { account, name: passkey.name };
    },

    list: (accountId: string): Promise<Passkey[]> =>
      database.read
        .select({ id: passkeys.id, name: passkeys.name, madeAt: passkeys.madeAt, lastUsedAt: passkeys.lastUsedAt })
        .from(passkeys)
        .where(ofAccount(accountId))
        .orderBy(asc(passkeys.madeAt)),

    /** @returns what became of it; `the-last` stays, for nothing else opens the account */
    remove: (accountId: string, id: string): Promise<{ removed: string } | 'unknown' | 'the-last'> =>
      database.write(async (tx) => {
        const known = await tx
          .select({ id: passkeys.id, name: passkeys.name, only: accounts.passkeysOnly })
          .from(passkeys)
          .innerJoin(accounts, eq(accounts.id, passkeys.accountId))
          .where(ofAccount(accountId));
        const found = known.find((each) => each.id === id);
        if (!found) return 'unknown';
        if (found.only && known.length === 1) return 'the-last';
        await tx.delete(passkeys).where(eq(passkeys.id, id));
        return { removed: found.name };
      }),
  };
}
export type Passkeys = ReturnType<typeof passkeyRepository>;
