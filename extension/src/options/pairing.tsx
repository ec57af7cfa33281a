import { useState } from 'react';
import { ask, type ExtensionStatus } from '../messages';
import { Button, Field, Part } from '../ui/controls';

/** Joins the extension to a library, and parts it from it. */
export function PairingPart({ standing: status, changed }: { standing: ExtensionStatus; changed(): void }) {
  const [code, setCode] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const { account, origin, revoked } = status;
  const pair = async () => {
    const answered = await ask('pair', { code });
    if (!answered.ok) {
      setFault(answered.says);
      return;
    }
    setFault(null);
    setCode('');
    changed();
  };
  return (
    <Part heading="Your library">
      {account && (
        <p role="status" className="font-ui text-base text-ink">
          {revoked ? 'The pairing was revoked with ' : 'It saves to the library of '}
          <strong>
            {account.name}, {account.mail}
          </strong>
          , at {origin}.
        </p>
      )}
      {(!account || revoked) && (
        <>
          <p className="font-ui text-base text-ink">
            In Dorvel, under You, “Save from elsewhere”, make a pairing code, and put it in here.
          </p>
          <Field label="Pairing code" value={code} onChange={setCode} fault={fault} />
          <div>
            <Button label="Pair" kind="main" onPress={() => void pair()} />
          </div>
        </>
      )}
      {account && (
        <div>
          <Button
            label="Part it from this library"
            kind="loss"
            onPress={() => void ask('unpair', null).then(changed)}
          />
        </div>
      )}
    </Part>
  );
}
