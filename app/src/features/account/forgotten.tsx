import { Mail, PassphraseByCode } from '@dorvel/core/model';
import { inputWords } from '@dorvel/core/wording';
import { useState } from 'react';
import { Text } from 'react-native';
import { useAccount } from '@/device/store/account';
import { api } from '@/device/sync/api';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { PassphraseField } from './passphrase-field';
import { SaidWrong } from './said-wrong';
import { NO_ADDRESS } from './sign-in';
import { useTrying } from './use-trying';

/** For who has forgotten their passphrase: a code by mail, or from whoever runs the server; then another passphrase. */
export function Forgotten({ sendsMail, onDone }: { sendsMail: boolean; onDone(): void }) {
  const { account, passphraseByCode } = useAccount();
  const [mail, setMail] = useState(account?.mail ?? '');
  const [hasCode, setHasCode] = useState(!sendsMail);
  const [isSent, setSent] = useState(false);
  const [code, setCode] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const { busy, problem, refuse, tryTo } = useTrying();
  const ask = async () => {
    const address = Mail.safeParse(mail);
    if (!address.success) refuse(NO_ADDRESS);
    else if (await tryTo(() => api.askCode(address.data))) {
      setSent(true);
      setHasCode(true);
    }
  };
  const choose = async () => {
    const wish = PassphraseByCode.safeParse({ mail, code, passphrase });
    if (!wish.success) refuse(inputWords(wish.error));
    else if (await tryTo(() => passphraseByCode(wish.data))) onDone();
  };
  return (
    <>
      <Text role="status" className="font-ui text-base text-ink">
        {isSent
          ? 'If there is an account with that mail address, a code is on its way to it. It is good for half an hour.'
          : sendsMail
            ? 'A code is sent to your mail address. With it you choose another passphrase.'
            : 'This server sends no mail. Whoever runs it can make you a code; with it you choose another passphrase.'}
      </Text>
      <Field label="Mail address" value={mail} onChangeText={setMail} autoComplete="email" inputMode="email" />
      {hasCode && <Field label="Code" value={code} onChangeText={setCode} autoComplete="one-time-code" />}
      {hasCode && (
        <PassphraseField
          label="New passphrase, 12 characters or more"
          value={passphrase}
          onChange={setPassphrase}
          isNew
          onSubmit={() => void choose()}
        />
      )}
      <SaidWrong problem={problem} />
      {hasCode ? (
        <Button
          label={busy ? 'One moment…' : 'Choose this passphrase'}
          kind="main"
          disabled={busy}
          onPress={() => void choose()}
        />
      ) : (
        <>
          <Button
            label={busy ? 'One moment…' : 'Send the code'}
            kind="main"
            disabled={busy}
            onPress={() => void ask()}
          />
          <Button label="I have a code" onPress={() => setHasCode(true)} />
        </>
      )}
    </>
  );
}
