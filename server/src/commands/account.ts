import path from 'node:path';
import { Mail } from '@dorvel/core/model';
import { accountRepository } from '../accounts/accounts';
import { accountEventLog } from '../accounts/events';
import { CODE_LIFE_MS, resetCodeRepository } from '../accounts/reset-codes';
import { readConfig } from '../config';
import { NotSound, openSound } from '../db/sound';

/**
 * For whoever runs the server: `npm run account` lists the accounts; `npm run account -- code name@example.org` makes a code
 * by which that reader chooses another passphrase; `npm run account -- passphrase name@example.org` lets the passphrase open
 * an account again of whose passkeys none is left.
 */
const config = readConfig(process.env, path.resolve(import.meta.dirname, '../../..'));
const fail = (words: string): never => {
  console.error(words);
  process.exit(1);
};
const database = await openSound(config).catch((error: unknown) => {
  if (!(error instanceof NotSound)) throw error;
  return fail(error.message);
});
const accounts = accountRepository(database, Date.now);
const [wanted, written] = process.argv.slice(2);
if (wanted === undefined) {
  for (const { mail, name } of await accounts.all()) console.log(`${mail}  ${name}`);
} else if (wanted === 'code' || wanted === 'passphrase') {
  const mail = Mail.safeParse(written ?? '');
  const account = mail.success ? await accounts.byMail(mail.data) : null;
  if (!account) fail('No account has that mail address. npm run account lists those that there are.');
  else if (wanted === 'passphrase') {
    await accounts.setPasskeysOnly(account.id, false);
    await accountEventLog(database, Date.now).note(account.id, 'passphrase-opens', { device: 'The server', place: '' });
    console.log(`The passphrase opens the account of ${account.mail}. Passkeys do as before.`);
  } else {
    const code = await resetCodeRepository(database, Date.now).make(account.id);
    if (code === null) fail('A code was made for that account a moment ago. Wait two minutes, then ask again.');
    console.log(`The code for ${account.mail}, good for ${CODE_LIFE_MS / 60_000} minutes: ${code}`);
    console.log('On the sign-in screen: Forgotten the passphrase?, then I have a code.');
  }
} else fail('npm run account, or npm run account -- code name@example.org, or -- passphrase name@example.org');
database.close();
