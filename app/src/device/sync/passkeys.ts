import { Credential, type PasskeyOptions } from '@dorvel/core/model';
import type { PublicKeyCredentialCreationOptionsJSON } from '@simplewebauthn/browser';
import type { z } from 'zod';

type Asked = z.infer<typeof PasskeyOptions>;

/** The browser, or who stands before it, made or gave no passkey. `message` is written for the reader. */
export class NoPasskey extends Error {
  override readonly name = 'NoPasskey';
}

/** What a browser's refusal means (W3C Web Authentication, level 3: 5.1.3 and 5.1.4). */
const REFUSALS: Readonly<Record<string, string>> = {
  NotAllowedError: 'No passkey was given: it was called off, or it took too long. Try again.',
  InvalidStateError: 'This device has a passkey for this account already.',
  SecurityError: 'Passkeys need an address with a name. Open Dorvel by its name, not by a number.',
};

/** Whether this browser knows passkeys at all. */
export const knowsPasskeys = (): boolean => typeof PublicKeyCredential === 'function';

/** Has the browser make a passkey. @throws NoPasskey */
export const makePasskey = (asked: Asked) =>
  answered(asked, async (options) => {
    const { startRegistration } = await import('@simplewebauthn/browser');
    return startRegistration({ optionsJSON: options as unknown as PublicKeyCredentialCreationOptionsJSON });
  });

/** Has the browser sign in with a passkey. @throws NoPasskey */
export const answerPasskey = (asked: Asked) =>
  answered(asked, async (options) => {
    const { startAuthentication } = await import('@simplewebauthn/browser');
    return startAuthentication({ optionsJSON: options });
  });

async function answered({ ticket, options }: Asked, ask: (options: Asked['options']) => Promise<unknown>) {
  try {
    return { ticket, credential: Credential.parse(await ask(options)) };
  } catch (error) {
    const refusal = error instanceof Error ? REFUSALS[error.name] : undefined;
    if (refusal === undefined) throw error;
    throw new NoPasskey(refusal, { cause: error });
  }
}
