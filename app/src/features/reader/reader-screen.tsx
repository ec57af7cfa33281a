import { isOnWeb } from '@dorvel/core/address';
import { ServerProblem, Unreachable } from '@dorvel/core/client';
import type { Item } from '@dorvel/core/model';
import { captureWords, titleOf } from '@dorvel/core/wording';
import { useRouter } from 'expo-router';
import ChevronLeft from 'lucide-react/dist/esm/icons/chevron-left.mjs';
import Ellipsis from 'lucide-react/dist/esm/icons/ellipsis.mjs';
import Headphones from 'lucide-react/dist/esm/icons/headphones.mjs';
import Maximize from 'lucide-react/dist/esm/icons/maximize.mjs';
import Minimize from 'lucide-react/dist/esm/icons/minimize.mjs';
import PanelLeftClose from 'lucide-react/dist/esm/icons/panel-left-close.mjs';
import PanelLeftOpen from 'lucide-react/dist/esm/icons/panel-left-open.mjs';
import Pause from 'lucide-react/dist/esm/icons/pause.mjs';
import TableOfContents from 'lucide-react/dist/esm/icons/table-of-contents.mjs';
import { memo, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Linking, Pressable, Text, View } from 'react-native';
import { keepPicturesOf } from '@/device/cache/downloads';
import { useAccount } from '@/device/store/account';
import { choose, fetchAgain } from '@/device/store/changes';
import { useCopy, useItem } from '@/device/store/library';
import type { KeptCopy } from '@/device/store/store';
import { useSync } from '@/device/sync/sync-loop';
import { GiveTextSheet } from '@/features/add/give-text-sheet';
import { ItemSheet } from '@/features/items/item-sheet';
import { moves } from '@/features/items/moves';
import { useListen } from '@/features/listen/use-listen';
import type { Shown } from '@/features/pictures/picture-view';
import { ReadingControls } from '@/features/settings/reading-controls';
import { type Tab, TAB_NAMES } from '@/navigation/tabs';
import { Button, IconButton } from '@/ui/button';
import { Icon } from '@/ui/icon';
import { useKeys } from '@/ui/keys';
import { Sheet } from '@/ui/sheet';
import { useWide } from '@/ui/wide';
import { ArticleView } from './article-view';
import { ChangeView } from './change-view';
import { CopiesSheet } from './copies-sheet';
import { foldContents, foldList, turnWhole, useReaderRoom } from './reader-room';
import { TidyView } from './tidy-view';
import { useFetchCopy } from './use-fetch-copy';
import { useShownCopy } from './use-shown-copy';

/** What of the item is on screen: its text, its blocks to be tidied, or what changed between two copies. */
type Looking = { at: 'text' } | { at: 'blocks' } | { at: 'changes'; between: readonly [from: string, to: string] };

interface ReaderScreenProps {
  tab: Tab;
  itemId: string;
  /** Where in the text something was found, to be opened there: see readPlaces. */
  at?: string | undefined;
}

/** An item open for reading, in whatever state its text is. */
export const ReaderScreen = memo(function ReaderScreen({ tab, itemId, at }: ReaderScreenProps) {
  const item = useItem(itemId);
  const [chosenId, setChosenId] = useState<string | null>(null);
  const original = useCopy(chosenId ?? item?.capture.page?.copyId);
  const copy = useShownCopy(item, original);
  const [looking, setLooking] = useState<Looking>({ at: 'text' });
  useMissingPictures(original ?? null);
  const router = useRouter();
  const { move } = moves;
  const [looksShown, setLooksShown] = useState(false);
  const [moreShown, setMoreShown] = useState(false);
  const [copiesShown, setCopiesShown] = useState(false);
  const [aside, setAside] = useState<'contents' | 'find' | 'echoes' | null>(null);
  const [picture, setPicture] = useState<Shown | null>(null);
  const onAsideDone = useCallback(() => setAside(null), []);
  const [left, setLeft] = useState({ whole: '', ofPart: '' });
  const onMinutesLeft = useCallback((whole: string, ofPart: string) => setLeft({ whole, ofPart }), []);
  const placeRef = useRef<(() => number) | null>(null);
  const { speaking, toggle, makeReady } = useListen(item ?? null, copy ?? null, () => placeRef.current?.() ?? 0);
  const back = useMemo(() => () => router.dismissTo(`/${tab}`), [router, tab]);
  const wide = useWide();
  const openContents = useMemo(() => (wide ? foldContents : () => setAside('contents')), [wide]);
  useKeys(
    useMemo(
      () => ({
        Escape: () => (useReaderRoom.getState().whole ? turnWhole() : back()),
        ...(wide ? { '\\': foldList, v: turnWhole } : {}),
        t: () => setLooksShown(true),
        c: openContents,
        f: () => setAside('find'),
        l: toggle,
        e: () => {
          if (!item) return;
          void move(item, 'finished');
          back();
        },
      }),
      [back, item, move, toggle, wide, openContents],
    ),
  );
  return (
    <View className="flex-1 bg-ground">
      <ReaderHead
        tab={tab}
        left={copy ? left : null}
        listening={copy ? speaking : null}
        onListen={toggle}
        onListenNear={makeReady}
        onBack={back}
        onContents={copy ? openContents : null}
        onLooks={() => setLooksShown(true)}
        onMore={() => setMoreShown(true)}
      />
      {item && looking.at === 'changes' ? (
        <ChangeView item={item} between={looking.between} onClose={() => setLooking({ at: 'text' })} />
      ) : item && original && looking.at === 'blocks' ? (
        <TidyView key={original.id} item={item} copy={original} onDone={() => setLooking({ at: 'text' })} />
      ) : item && copy && original ? (
        <ArticleView
          key={`${copy.id} ${copy.tree.children.length}`}
          original={original}
          item={item}
          copy={copy}
          tab={tab}
          at={at}
          picture={picture}
          onPicture={setPicture}
          placeRef={placeRef}
          aside={aside}
          onAsideDone={onAsideDone}
          onMinutesLeft={onMinutesLeft}
          onDecided={back}
        />
      ) : (
        item !== undefined && copy !== undefined && <NoText item={item} />
      )}
      {looksShown && (
        <Sheet title="How the text looks" onClose={() => setLooksShown(false)}>
          <ReadingControls />
        </Sheet>
      )}
      {moreShown && item && (
        <ItemSheet
          itemId={item.id}
          onClose={() => setMoreShown(false)}
          onMoved={back}
          {...(copy
            ? {
                text: {
                  onCopies: () => {
                    setMoreShown(false);
                    setCopiesShown(true);
                  },
                  onFind: () => {
                    setMoreShown(false);
                    setAside('find');
                  },
                  onEchoes: () => {
                    setMoreShown(false);
                    setAside('echoes');
                  },
                  onTidy: () => {
                    setMoreShown(false);
                    setLooking({ at: 'blocks' });
                  },
                },
              }
            : {})}
        />
      )}
      {copiesShown && item && (
        <CopiesSheet
          item={item}
          readingId={original?.id ?? null}
          onClose={() => setCopiesShown(false)}
          onRead={(id) => {
            setCopiesShown(false);
            setChosenId(id);
          }}
          onCompare={(from, to) => {
            setCopiesShown(false);
            setLooking({ at: 'changes', between: [from, to] });
          }}
        />
      )}
    </View>
  );
});

function ReaderHead(props: {
  tab: Tab;
  /** How much is left, in words; null when there is nothing to read. */
  left: { whole: string; ofPart: string } | null;
  /** Whether the voice reads this item now; null when there is nothing to read. */
  listening: boolean | null;
  onListen(): void;
  onListenNear(): void;
  onBack(): void;
  /** Null when there is nothing to read. */
  onContents: (() => void) | null;
  onLooks(): void;
  onMore(): void;
}) {
  const wide = useWide();
  const { beside, whole } = useReaderRoom();
  const hasList = wide && beside === 'list' && !whole;
  return (
    <View className="h-[52px] flex-row items-center justify-between border-b border-line pl-[10px] pr-[4px]">
      <View className="min-w-[96px] flex-row items-center">
        {wide && !whole && (
          <IconButton name={hasList ? 'Fold the list away' : 'Show the list'} onPress={foldList}>
            <Icon of={hasList ? PanelLeftClose : PanelLeftOpen} tone="ink" size={20} />
          </IconButton>
        )}
        {!hasList && (
          <Pressable
            role="button"
            aria-label={`Back to ${TAB_NAMES[props.tab]}`}
            onPress={props.onBack}
            className="min-h-[44px] flex-row items-center"
          >
            <Icon of={ChevronLeft} tone="ink" size={20} />
            <Text className="font-ui text-base text-ink">{TAB_NAMES[props.tab]}</Text>
          </Pressable>
        )}
      </View>
      <View className="min-w-0 shrink items-center">
        <Text className="font-ui text-small text-soft">{props.left?.whole}</Text>
        {props.left?.ofPart ? (
          <Text numberOfLines={1} className="font-ui text-small text-soft">
            {props.left.ofPart}
          </Text>
        ) : null}
      </View>
      <View className="flex-row">
        {props.listening !== null && (
          <IconButton
            name={props.listening ? 'Pause the voice' : 'Listen'}
            onPress={props.onListen}
            onNear={props.onListenNear}
          >
            <Icon of={props.listening ? Pause : Headphones} tone="ink" size={20} />
          </IconButton>
        )}
        {props.onContents && (
          <IconButton name="Contents" onPress={props.onContents}>
            <Icon of={TableOfContents} tone="ink" size={20} />
          </IconButton>
        )}
        {wide && (
          <IconButton name={whole ? 'Leave the whole screen' : 'The whole screen'} onPress={turnWhole}>
            <Icon of={whole ? Minimize : Maximize} tone="ink" size={20} />
          </IconButton>
        )}
        <IconButton name="How the text looks" onPress={props.onLooks}>
          <Text className="font-read text-row text-ink">Aa</Text>
        </IconButton>
        <IconButton name="What to do with this item" onPress={props.onMore}>
          <Icon of={Ellipsis} tone="ink" size={20} />
        </IconButton>
      </View>
    </View>
  );
}

/** When there is nothing to read yet, or at all: says why, what was kept and what can be done. */
function NoText({ item }: { item: Item | null }) {
  const online = useSync((state) => state.online);
  const [giving, setGiving] = useState(false);
  const fetching = useFetchCopy(item, item?.capture.page?.copyId ?? null, online);
  if (!item)
    return (
      <Message
        title="Not on this device"
        words={
          online
            ? 'There is no item at this address in your library.'
            : 'You are offline, and this item is not on this device.'
        }
      />
    );
  const title = titleOf(item);
  if (item.capture.page?.copyId) {
    return (
      <Message
        title={title}
        words={
          fetching ??
          (online
            ? 'Its text is on the way to this device…'
            : 'You are offline, and the text of this item is not on this device. Connect to fetch it.')
        }
      />
    );
  }
  return (
    <Message title={title} words={captureWords(item.capture)}>
      {item.capture.state === 'failed' && isOnWeb(item.address) && (
        <Button label="Fetch the page again" kind="main" onPress={() => void fetchAgain(item.id)} />
      )}
      {item.choices.howMuch.value === 'address-only' && (
        <Button
          label="Keep its words and pictures too"
          kind="main"
          onPress={() => void choose(item.id, { howMuch: 'words-and-pictures' }).then(() => fetchAgain(item.id))}
        />
      )}
      <Button label="Paste the text" onPress={() => setGiving(true)} />
      {isOnWeb(item.address) && (
        <Button label="Open the page itself" onPress={() => void Linking.openURL(item.address)} />
      )}
      {giving && <GiveTextSheet item={item} onClose={() => setGiving(false)} />}
    </Message>
  );
}

/** A text that is here without its pictures gets them when it is opened with a connection. */
function useMissingPictures(copy: KeptCopy | null): void {
  const store = useAccount((state) => state.store);
  const online = useSync((state) => state.online);
  const missing = copy?.textOnly === 1 && online ? copy.id : null;
  useEffect(() => {
    if (!missing || !store) return;
    keepPicturesOf(store, missing).catch((error: unknown) => {
      // Offline after all, or the server is busy: the text is here, and the next opening tries again.
      if (!(error instanceof Unreachable || error instanceof ServerProblem || error instanceof TypeError)) throw error;
    });
  }, [missing, store]);
}

function Message({ title, words, children }: { title: string; words: string; children?: React.ReactNode }) {
  return (
    <View className="mx-auto w-full max-w-[560px] gap-[14px] px-[22px] py-[32px]">
      <Text role="heading" aria-level={1} className="font-read text-head font-semibold text-ink">
        {title}
      </Text>
      <Text className="font-ui text-base text-soft">{words}</Text>
      {children}
    </View>
  );
}
