import { hostOf } from '@dorvel/core/address';
import { type EntryPart, hasText, type Item, type KnownPage } from '@dorvel/core/model';
import { alreadySavedWords, captureWords, lengthInWords, sharedInWords, sourceOf, titleOf } from '@dorvel/core/wording';
import { useState } from 'react';
import { linkTo } from '../background/links';
import type { Saved } from '../background/save';
import { ask } from '../messages';
import { Button, Part } from '../ui/controls';
import { Strand } from '../ui/strand';
import { Changes } from './changes';
import { IntoDossier } from './into-dossier';
import { useKnown } from './use-known';
import { useOrigin } from './use-origin';

/** What was saved: what it is, whether its text came through, what else of the reader's it touches. */
export function SavedPage({
  saved,
  what,
  tabId,
  changed,
}: {
  saved: Extract<Saved, { ok: true }>;
  what: string;
  tabId: number | null;
  changed(): void;
}) {
  const { known, again } = useKnown(saved.itemId);
  const [undone, setUndone] = useState(false);
  const item = known?.ok ? known.answer.item : null;
  const wasThere = item !== null && item.id !== saved.itemId;
  const undo = async () => {
    await ask('letGo', { itemIds: [saved.itemId] });
    setUndone(true);
    changed();
  };
  if (undone)
    return (
      <div role="status" className="flex flex-col gap-[4px]">
        <h1 className="font-ui text-head font-semibold text-ink">Taken back</h1>
        <p className="font-ui text-base text-soft">It is let go. It can be brought back for 30 days.</p>
      </div>
    );
  return (
    <>
      <div className="flex items-start justify-between gap-[12px]">
        <div role="status" className="min-w-0 flex-1">
          <h1 className="font-ui text-head font-semibold text-ink">
            {known?.ok === false
              ? 'Saved here'
              : what === 'mark'
                ? 'Marked'
                : wasThere
                  ? 'Already there'
                  : what === 'page'
                    ? 'Saved to Inbox'
                    : `The ${what} is saved to Inbox`}
          </h1>
          <p className="font-ui text-small text-soft">
            {known?.ok === false
              ? known.says
              : what === 'mark'
                ? 'It stands in the saved copy too.'
                : wasThere
                  ? alreadySavedWords(item)
                  : saved.asShown
                    ? 'As you see it.'
                    : 'Its text is fetched.'}
          </p>
        </div>
        {!wasThere && what !== 'mark' && <Button label="Undo" onPress={() => void undo()} />}
      </div>
      <div className="flex flex-col gap-[4px] border-y border-line py-[12px]">
        <p className="break-words font-read text-row font-semibold text-ink">{item ? titleOf(item) : saved.title}</p>
        <p className="font-ui text-small text-soft">{item ? sourceOf(item) : hostOf(saved.address) || 'a picture'}</p>
        {item?.capture.page && hasText(item) && (
          <div className="flex items-center justify-between">
            <Strand item={item} />
            <span aria-hidden className="font-ui text-small text-soft">
              {lengthInWords(item)}
            </span>
          </div>
        )}
        <p className={`font-ui text-small ${isTrouble(item) ? 'text-brick' : 'text-soft'}`}>
          {item ? captureWords(item.capture) : ''}
        </p>
      </div>
      {known?.ok && item && (
        <>
          <Changes
            // Another standing item has other words in its fields.
            key={item.id}
            item={item}
            known={known.answer}
            tabId={tabId}
            again={again}
          />
          <IntoDossier dossiers={known.answer.dossiers} parts={partsOf(item, what === 'mark' ? known.answer : null)} />
          <Related known={known.answer} />
        </>
      )}
    </>
  );
}

/** The item; or, where a passage was marked, that. */
function partsOf({ id: itemId }: Item, marked: KnownPage | null): EntryPart[] {
  const last = [...(marked?.highlights ?? [])].sort((a, b) => a.madeAt - b.madeAt).at(-1);
  return [last ? { kind: 'passage', itemId, highlightId: last.id } : { kind: 'item', itemId }];
}

function isTrouble(item: Item | null): boolean {
  if (!item) return false;
  const verdict = item.capture.page?.cameThrough.verdict;
  return item.capture.state === 'failed' || (verdict !== undefined && verdict !== 'whole');
}

function Related({ known }: { known: KnownPage }) {
  const origin = useOrigin();
  if (known.related.length === 0 || origin === null) return null;
  return (
    <Part heading="Related, from your library">
      <ul className="flex flex-col">
        {known.related.map(({ item, shared }) => (
          <li key={item.id} className="border-b border-line last:border-0">
            <a
              href={linkTo(origin, item.id, item.choices.stage.value)}
              target="_blank"
              rel="noreferrer"
              className="block py-[9px]"
            >
              <span className="block font-read text-base font-semibold text-ink">{titleOf(item)}</span>
              <span className="block font-ui text-small text-soft">
                {sourceOf(item)} · {lengthInWords(item)}
              </span>
              <span className="block font-ui text-small text-accent">{sharedInWords(shared)}</span>
            </a>
          </li>
        ))}
      </ul>
    </Part>
  );
}
