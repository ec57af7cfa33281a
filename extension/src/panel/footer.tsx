import type { ExtensionStatus } from '../messages';

/** Whose library it is, what waits, and when the panel closes. */
export function Footer({ standing: status, closesIn }: { standing: ExtensionStatus; closesIn: number | null }) {
  const { account, waiting, refused } = status;
  return (
    <footer className="flex flex-col gap-[4px] border-t border-line pt-[10px] font-ui text-small text-soft">
      <p>
        In the library of {account?.name}, {account?.mail}
      </p>
      {waiting > 0 && <p>{waiting === 1 ? 'One change waits' : `${waiting} changes wait`} to be sent.</p>}
      {refused.length > 0 && (
        <p className="text-brick">
          {refused.length === 1 ? 'One address was' : `${refused.length} addresses were`} not taken: see the settings.
        </p>
      )}
      <div className="flex items-center justify-between">
        <button
          type="button"
          className="min-h-[44px] font-ui text-small text-accent underline"
          onClick={() => void chrome.runtime.openOptionsPage()}
        >
          Settings
        </button>
        {closesIn !== null && <span>Closes in {closesIn} s; touch it, and it stays.</span>}
      </div>
    </footer>
  );
}
