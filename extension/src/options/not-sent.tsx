import { ask, type ExtensionStatus } from '../messages';
import { Button, Part } from '../ui/controls';

/** What waits for a connection, and what the server would not take: no address is dropped. */
export function NotSent({
  status: { waiting, refused },
  changed,
  look,
}: {
  status: ExtensionStatus;
  changed(status: ExtensionStatus): void;
  look(): void;
}) {
  if (waiting === 0 && refused.length === 0) return null;
  return (
    <Part heading="Not in your library yet">
      {waiting > 0 && (
        <>
          <p role="status" className="font-ui text-base text-ink">
            {waiting === 1 ? 'One change waits' : `${waiting} changes wait`} to be sent. It is tried again every minute.
          </p>
          <div>
            <Button label="Try now" onPress={() => void ask('sendNow', null).then(changed)} />
          </div>
        </>
      )}
      {refused.length > 0 && (
        <>
          <ul className="flex flex-col gap-[8px]">
            {refused.map(({ address, detail }) => (
              <li key={address} className="break-all font-ui text-base text-ink">
                {address}
                <span className="block text-small text-brick">{detail}</span>
              </li>
            ))}
          </ul>
          <div>
            <Button label="Forget these" kind="loss" onPress={() => void ask('forgetRefused', null).then(look)} />
          </div>
        </>
      )}
    </Part>
  );
}
