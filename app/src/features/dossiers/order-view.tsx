import { moveEntries, sectionLength, unfolded } from '@dorvel/core/dossier';
import { inMinutes } from '@dorvel/core/wording';
import { useState } from 'react';
import { Pressable, Text, View } from 'react-native';
import { rerankEntries } from '@/device/store/dossier-changes';
import { useNotices } from '@/ui/notices';
import { OrderedList } from '@/ui/ordered-list';
import { Strand } from '@/ui/strand';
import { partTitle } from './parts';
import type { OpenDossier } from './use-dossier';

interface OrderViewProps {
  open: OpenDossier;
  onEdit(entryId: string): void;
}

/** The things of a dossier in a line each, to be put in order. A section that is folded goes as a whole. */
export function OrderView({ open: { entries, compiled }, onEdit }: OrderViewProps) {
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const shown = unfolded(entries, folded);
  const parts = new Map(compiled.parts.map((part) => [part.entryId, part]));
  const title = (id: string) => {
    const part = parts.get(id);
    return part ? partTitle(part) : '';
  };
  const lengthAt = (id: string, among: typeof entries) => {
    const at = among.findIndex((each) => each.id === id);
    return folded.has(id) ? sectionLength(among, at) : 1;
  };
  const move = (from: number, to: number) => {
    const moving = shown[from];
    if (!moving) return;
    const at = entries.indexOf(moving);
    const count = lengthAt(moving.id, entries);
    const rest = [...entries.slice(0, at), ...entries.slice(at + count)];
    const before = shown.filter((each) => each !== moving)[to - 1];
    const target = before ? rest.indexOf(before) + lengthAt(before.id, rest) : 0;
    const ranks = moveEntries(entries, at, count, target);
    const earlier = ranks.map(({ id }) => ({
      id,
      rank: entries.find((each) => each.id === id)?.choices.rank.value ?? '',
    }));
    void rerankEntries(ranks);
    useNotices.getState().show({
      text: `“${title(moving.id)}” is moved.`,
      action: { label: 'Undo', press: () => void rerankEntries(earlier) },
    });
  };
  const fold = (id: string) => {
    const next = new Set(folded);
    if (!next.delete(id)) next.add(id);
    setFolded(next);
  };
  return (
    <OrderedList
      name="Order"
      items={shown}
      titleOf={({ id }) => title(id)}
      positionInWords={(at) => `Number ${at + 1}`}
      onMove={move}
    >
      {({ id, part, choices }) => {
        const compiledPart = parts.get(id);
        const page = compiledPart?.kind === 'item' ? compiledPart.item.capture.page : null;
        return (
          <View className="flex-row items-center gap-[10px]">
            <Pressable
              role="button"
              aria-label={`Change “${title(id)}”`}
              onPress={() => onEdit(id)}
              className="min-h-[44px] min-w-0 flex-1 justify-center"
            >
              <Text
                numberOfLines={2}
                className={`font-read text-base text-ink ${part.kind === 'heading' ? 'font-semibold' : ''} ${choices.nested.value ? 'pl-[18px]' : ''}`}
              >
                {title(id)}
              </Text>
              {page && (
                <Strand minutes={page.minutes} passed={0} looseEnd={null} label={inMinutes(page.minutes)} room={160} />
              )}
            </Pressable>
            {part.kind === 'heading' && (
              <Pressable
                role="button"
                aria-expanded={!folded.has(id)}
                aria-label={`${folded.has(id) ? 'Unfold' : 'Fold'} “${title(id)}”`}
                onPress={() => fold(id)}
                className="min-h-[44px] min-w-[44px] justify-center"
              >
                <Text className="font-ui text-small text-accent underline">
                  {folded.has(id)
                    ? `Unfold (${
                        sectionLength(
                          entries,
                          entries.findIndex((each) => each.id === id),
                        ) - 1
                      })`
                    : 'Fold'}
                </Text>
              </Pressable>
            )}
          </View>
        );
      }}
    </OrderedList>
  );
}
