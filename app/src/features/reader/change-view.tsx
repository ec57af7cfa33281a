import { compareCopies, type ParagraphChange, type WordChange } from '@dorvel/core/copies';
import type { Item } from '@dorvel/core/model';
import { isRightToLeft } from '@dorvel/core/text';
import { momentWords } from '@dorvel/core/wording';
import { useMemo } from 'react';
import { Text, View } from 'react-native';
import { useCopy } from '@/device/store/library';
import type { KeptCopy } from '@/device/store/store';
import { useSync } from '@/device/sync/sync-loop';
import { readingStyle, useReadingSettings } from '@/features/settings/reading-settings-store';
import { Button } from '@/ui/button';
import { useFetchCopy } from './use-fetch-copy';

interface ChangeViewProps {
  item: Item;
  /** Ids of the earlier and the later copy. */
  between: readonly [from: string, to: string];
  onClose(): void;
}

/** What became of a text between two of its copies, paragraph by paragraph and word by word. */
export function ChangeView({ item, between: [from, to], onClose }: ChangeViewProps) {
  const [before, after] = [useCopy(from), useCopy(to)];
  const online = useSync((state) => state.online);
  const problem = useFetchCopy(item, before === null ? from : after === null ? to : null, online);
  return (
    <View className="min-h-0 flex-1">
      <div
        className="reader-scroll"
        role="region"
        aria-label="What changed"
        // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reachable by keyboard
        tabIndex={0}
      >
        <View className="mx-auto w-full max-w-[720px] gap-[16px] px-[22px] pb-[40px] pt-[18px]">
          {before && after ? (
            <Comparison before={before} after={after} />
          ) : (
            <Text className="font-ui text-base text-soft">
              {problem ??
                (online
                  ? 'The two copies are on the way to this device…'
                  : 'You are offline, and the earlier copy is not on this device. Connect to compare.')}
            </Text>
          )}
          <View className="items-start">
            <Button label="Back to the text" onPress={onClose} />
          </View>
        </View>
      </div>
    </View>
  );
}

function Comparison({ before, after }: { before: KeptCopy; after: KeptCopy }) {
  const settings = useReadingSettings();
  const style = useMemo(() => readingStyle(settings), [settings]);
  const { changes, addedWords, removedWords } = useMemo(() => compareCopies(before.tree, after.tree), [before, after]);
  const groups = useMemo(() => grouped(changes), [changes]);
  const words = (count: number) => `${count.toLocaleString('en')} ${count === 1 ? 'word' : 'words'}`;
  return (
    <>
      <Text role="heading" aria-level={1} className="font-read text-head font-semibold text-ink">
        What changed
      </Text>
      <Text className="font-ui text-base text-soft">
        From the copy made {momentWords(before.madeAt)} to the one made {momentWords(after.madeAt)}:{' '}
        {addedWords === 0 && removedWords === 0
          ? 'the words are the same.'
          : `${words(addedWords)} added, ${words(removedWords)} taken out.`}
      </Text>
      <div
        className="article changes"
        style={style}
        lang={after.language ?? undefined}
        dir={isRightToLeft(after.language) ? 'rtl' : 'ltr'}
      >
        {groups.map((group, index) =>
          Array.isArray(group) ? (
            <details key={index} className="unchanged">
              <summary>{group.length === 1 ? 'One paragraph' : `${group.length} paragraphs`} unchanged</summary>
              {group.map((text, at) => (
                <p key={at}>{text}</p>
              ))}
            </details>
          ) : (
            <Changed key={index} change={group} />
          ),
        )}
      </div>
    </>
  );
}

function Changed({ change }: { change: ParagraphChange }) {
  const words: WordChange[] = change.kind === 'changed' ? change.words : [change];
  return (
    <p className={change.kind}>
      {words.map(({ kind, text }, index) =>
        kind === 'added' ? <ins key={index}>{text}</ins> : kind === 'removed' ? <del key={index}>{text}</del> : text,
      )}
    </p>
  );
}

/** Runs of unchanged paragraphs together, so that what changed is seen at once. */
function grouped(changes: readonly ParagraphChange[]): (ParagraphChange | string[])[] {
  const groups: (ParagraphChange | string[])[] = [];
  for (const change of changes) {
    const last = groups.at(-1);
    if (change.kind !== 'same') groups.push(change);
    else if (Array.isArray(last)) last.push(change.text);
    else groups.push([change.text]);
  }
  return groups;
}
