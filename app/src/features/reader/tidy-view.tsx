import { tidyingOf, withTidying } from '@dorvel/core/copies';
import type { Item } from '@dorvel/core/model';
import { isRightToLeft, plainText } from '@dorvel/core/text';
import type { Root } from 'hast';
import { useMemo, useRef, useState } from 'react';
import { Text, View } from 'react-native';
import { asElements } from '@/article/article-body';
import { choose } from '@/device/store/changes';
import type { KeptCopy } from '@/device/store/store';
import { readingStyle, useReadingSettings } from '@/features/settings/reading-settings-store';
import { Button } from '@/ui/button';
import { reasonsOf } from './unsure-words';

interface TidyViewProps {
  item: Item;
  /** With all its blocks. */
  copy: KeptCopy;
  onDone(): void;
}

/** The text block by block: a press takes a block out or puts it back. The copy itself stays as it is. */
export function TidyView({ item, copy, onDone }: TidyViewProps) {
  const settings = useReadingSettings();
  const style = useMemo(() => readingStyle(settings), [settings]);
  const out = tidyingOf(item.choices, copy.id)?.out ?? [];
  const { set, undo, canUndo } = useUndoable(item, copy, out);
  const blocks = useMemo(() => copy.tree.children.map((block) => blockOf(block)), [copy]);
  const doubts = useMemo(() => new Map(copy.doubts?.map((doubt) => [doubt.at, doubt])), [copy]);
  const list = useRef<HTMLDivElement>(null);
  const lastShown = useRef(-1);
  const goToNext = () => {
    const places = [...doubts.keys()];
    // Behind the last comes the first.
    lastShown.current = places.find((place) => place > lastShown.current) ?? places[0] ?? -1;
    const block = list.current?.children[lastShown.current];
    if (!(block instanceof HTMLElement)) return;
    block.focus({ preventScroll: true });
    block.scrollIntoView({ block: 'center' });
  };
  return (
    <View className="min-h-0 flex-1">
      <div className="reader-scroll" role="region" aria-label="Tidy the text">
        <View className="px-[22px] pb-[24px] pt-[14px]">
          <Text role="heading" aria-level={1} className="pb-[14px] font-read text-head font-semibold text-ink">
            Tidy the text
          </Text>
          <div
            ref={list}
            className="article tidy"
            style={style}
            lang={copy.language ?? undefined}
            dir={isRightToLeft(copy.language) ? 'rtl' : 'ltr'}
          >
            {blocks.map(({ name, content }, index) => {
              const isOut = out.includes(index);
              const doubt = doubts.get(index);
              const toggle = () => set(isOut ? out.filter((each) => each !== index) : [...out, index]);
              return (
                <div
                  key={index}
                  role="checkbox"
                  aria-checked={!isOut}
                  aria-label={name}
                  aria-describedby={doubt && `unsure-${index}`}
                  tabIndex={0}
                  className={['tidy-block', isOut && 'out', doubt && 'unsure'].filter(Boolean).join(' ')}
                  onClick={toggle}
                  onKeyDown={(event) => {
                    if (event.key !== ' ' && event.key !== 'Enter') return;
                    event.preventDefault();
                    toggle();
                  }}
                >
                  <div inert>{content}</div>
                  {doubt && (
                    <div id={`unsure-${index}`} lang="en" dir="ltr" className="why">
                      {reasonsOf(doubt)}
                    </div>
                  )}
                </div>
              );
            })}
          </div>
        </View>
      </div>
      <View className="gap-[8px] border-t border-line px-[20px] pb-[14px] pt-[10px]">
        <Text aria-live="polite" className="font-ui text-small text-soft">
          {out.length === 0
            ? `Press what does not belong to the text. The copy itself stays as it is.${unsure(doubts.size)}`
            : `${out.length} ${out.length === 1 ? 'block' : 'blocks'} taken out. Press one to put it back.`}
        </Text>
        <View className="flex-row flex-wrap gap-[10px]">
          <Button label="Done" kind="main" onPress={onDone} />
          {doubts.size > 0 && (
            <Button label="Next unsure" name="Go to the next block that may not belong" onPress={goToNext} />
          )}
          <Button label="Undo" name="Undo the last press" disabled={!canUndo} onPress={undo} />
          <Button label="Put all back" disabled={out.length === 0} onPress={() => set([])} />
        </View>
      </View>
    </View>
  );
}

function unsure(count: number): string {
  if (count === 0) return '';
  return count === 1 ? ' One block may not belong: it says why.' : ` ${count} blocks may not belong: they say why.`;
}

function useUndoable(item: Item, copy: KeptCopy, out: readonly number[]) {
  const before = useRef<(readonly number[])[]>([]);
  const [steps, setSteps] = useState(0);
  const put = (next: readonly number[]) =>
    void choose(item.id, { tidied: withTidying(item.choices, copy.id, copy.tree, next) });
  return {
    canUndo: steps > 0,
    set(next: readonly number[]) {
      before.current.push(out);
      setSteps(before.current.length);
      put(next);
    },
    undo() {
      const last = before.current.pop();
      setSteps(before.current.length);
      if (last) put(last);
    },
  };
}

const MAX_NAME_LENGTH = 100;

function blockOf(block: Root['children'][number]) {
  const tree: Root = { type: 'root', children: [block] };
  const text = plainText(tree).text.replace(/\s+/g, ' ');
  return {
    name: text === '' ? 'A picture' : text.slice(0, MAX_NAME_LENGTH),
    content: asElements(tree),
  };
}
