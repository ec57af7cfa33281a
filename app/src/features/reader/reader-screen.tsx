import type { Item } from '@dorvel/core/model';
import { useRouter } from 'expo-router';
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import Ellipsis from 'lucide-react-native/icons/ellipsis';
import Headphones from 'lucide-react-native/icons/headphones';
import Pause from 'lucide-react-native/icons/pause';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Linking, Pressable, Text, View } from 'react-native';
import { useAccount } from '@/device/account';
import { ServerProblem, Unreachable } from '@/device/api';
import { fetchAgain } from '@/device/changes';
import { keepCopy, keepPicturesOf } from '@/device/downloads';
import { useCopy, useItem } from '@/device/library';
import type { KeptCopy } from '@/device/store';
import { useSync } from '@/device/sync-loop';
import { ItemSheet } from '@/features/library/item-sheet';
import { titleOf } from '@/features/library/item-words';
import { useMoves } from '@/features/library/moves';
import { ReadingControls } from '@/features/settings/reading-controls';
import { useListen } from '@/features/listen/use-listen';
import { PLACE_NAMES, type Place } from '@/features/shell/places';
import { Button, IconButton } from '@/ui/button';
import { Icon } from '@/ui/icon';
import { useKeys } from '@/ui/keys';
import { Sheet } from '@/ui/sheet';
import { useWide } from '@/ui/wide';
import { ArticleView } from './article-view';

/** An item open for reading, in whatever state its text is. */
export function ReaderScreen({ place, itemId }: { place: Place; itemId: string }) {
  const item = useItem(itemId);
  const copy = useCopy(item?.capture.page?.copyId);
  useMissingPictures(copy ?? null);
  const router = useRouter();
  const { move } = useMoves();
  const [looksShown, showLooks] = useState(false);
  const [moreShown, showMore] = useState(false);
  const [left, setLeft] = useState('');
  const placeRef = useRef<(() => number) | null>(null);
  const { speaking, toggle } = useListen(item ?? null, copy ?? null, () => placeRef.current?.() ?? 0);
  const back = useMemo(() => () => router.dismissTo(`/${place}`), [router, place]);
  useKeys(
    useMemo(
      () => ({
        Escape: back,
        t: () => showLooks(true),
        l: toggle,
        e: () => {
          if (!item) return;
          void move(item, 'finished');
          back();
        },
      }),
      [back, item, move, toggle],
    ),
  );
  return (
    <View className="flex-1 bg-ground">
      <ReaderHead
        place={place}
        left={copy ? left : ''}
        listening={copy ? speaking : null}
        onListen={toggle}
        onBack={back}
        onLooks={() => showLooks(true)}
        onMore={() => showMore(true)}
      />
      {item && copy ? (
        <ArticleView
          key={copy.id}
          item={item}
          copy={copy}
          place={place}
          placeRef={placeRef}
          onMinutesLeft={setLeft}
          onDecided={back}
        />
      ) : (
        item !== undefined && copy !== undefined && <NoText item={item} />
      )}
      {looksShown && (
        <Sheet title="How the text looks" onClose={() => showLooks(false)}>
          <ReadingControls />
        </Sheet>
      )}
      {moreShown && item && <ItemSheet itemId={item.id} onClose={() => showMore(false)} onMoved={back} />}
    </View>
  );
}

function ReaderHead(props: {
  place: Place;
  left: string;
  /** Whether the voice reads this item now; null when there is nothing to read. */
  listening: boolean | null;
  onListen(): void;
  onBack(): void;
  onLooks(): void;
  onMore(): void;
}) {
  const wide = useWide();
  return (
    <View className="h-[52px] flex-row items-center justify-between border-b border-line pl-[10px] pr-[4px]">
      {wide ? (
        <View className="w-[96px]" />
      ) : (
        <Pressable
          role="button"
          aria-label={`Back to ${PLACE_NAMES[props.place]}`}
          onPress={props.onBack}
          className="min-h-[44px] min-w-[96px] flex-row items-center"
        >
          <Icon of={ChevronLeft} tone="ink" size={20} />
          <Text className="font-ui text-base text-ink">{PLACE_NAMES[props.place]}</Text>
        </Pressable>
      )}
      <Text className="font-ui text-small text-soft">{props.left}</Text>
      <View className="flex-row">
        {props.listening !== null && (
          <IconButton name={props.listening ? 'Pause the voice' : 'Listen'} onPress={props.onListen}>
            <Icon of={props.listening ? Pause : Headphones} tone="ink" size={20} />
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
  const fetching = useFetchCopy(item, online);
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
  if (item.capture.page) {
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
    <Message title={title} words={item.capture.says}>
      {item.capture.state === 'failed' && (
        <Button label="Fetch the page again" kind="main" onPress={() => void fetchAgain(item.id)} />
      )}
      <Button label="Open the page itself" onPress={() => void Linking.openURL(item.address)} />
    </Message>
  );
}

/** Items outside Inbox and Queue are not brought here with all they have: the rest comes when they are opened. */
function useFetchCopy(item: Item | null, online: boolean): string | null {
  const store = useAccount((state) => state.store);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    const copyId = item?.capture.page?.copyId;
    if (!item || !copyId || !store || !online) return;
    keepCopy(store, item, copyId).then(
      () => setProblem(null),
      (error: unknown) =>
        setProblem(
          error instanceof ServerProblem || error instanceof Unreachable
            ? error.message
            : `The text could not be kept on this device: ${String(error)}`,
        ),
    );
  }, [item, store, online]);
  return problem;
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
      if (!(error instanceof Unreachable || error instanceof ServerProblem || error instanceof TypeError))
        throw error;
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
