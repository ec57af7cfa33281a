import { alreadySavedWords, titleOf } from '@dorvel/core/wording';
import { usePathname, useRouter } from 'expo-router';
import { type ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { View } from 'react-native';
import { useAhead } from '@/article/prerender';
import { useAccount } from '@/device/store/account';
import { replayJournal } from '@/device/store/changes';
import { followItems } from '@/device/store/items';
import { followCopies } from '@/device/store/kept-copies';
import { followKnots } from '@/device/store/knots';
import { followPace } from '@/device/store/pace';
import { useSync } from '@/device/sync/sync-loop';
import { AddSheet } from '@/features/add/add-sheet';
import { useAddSheet } from '@/features/add/add-store';
import { useShared } from '@/features/add/shared';
import { useFileDrop } from '@/features/add/use-file-drop';
import { PutInSheet } from '@/features/collecting/put-in-sheet';
import { asEntries, putInLast, usePutIn } from '@/features/collecting/put-in-store';
import { NoteSheet } from '@/features/notes/note-sheet';
import { useNoteSheet } from '@/features/notes/note-store';
import { bringEditor } from '@/features/notes/writing-field';
import { useArranging } from '@/features/now/parts-store';
import { followWhole, useReaderRoom } from '@/features/reader/reader-room';
import { isTab } from '@/navigation/tabs';
import { Boundary } from '@/ui/boundary';
import { useEdgeBack } from '@/ui/edge-back';
import { useKeys } from '@/ui/keys';
import { NoticeBar, useNotices } from '@/ui/notices';
import { whenQuiet } from '@/ui/quiet';
import { useWide } from '@/ui/wide';
import { DropShelf } from './drop-shelf';
import { KeysSheet } from './keys-sheet';
import { fetchLaterWhenIdle, later, reading } from './later';
import { StatusLine } from './status-line';
import { TabBar } from './tab-bar';

interface ShellProps {
  /** The item open in the reader, which takes the whole phone; the bar of places is out of its way. */
  openId: string | null;
  children: ReactNode;
}

const ArrangeNow = later('ArrangeNow', null);

/** What stands around every place: the status line, the bar, the sheets and notices. */
export function Shell({ openId, children }: ShellProps) {
  const wide = useWide();
  const router = useRouter();
  // Where something else is looked at, what could not be drawn is over. Within a place the frame has boundaries of its own.
  const path = usePathname().split('/')[1];
  const add = useAddSheet();
  const writing = useNoteSheet((state) => state.writing);
  const things = usePutIn((state) => state.things);
  const [keysShown, setKeysShown] = useState(false);
  const store = useAccount((state) => state.store);
  useEffect(() => void replayJournal(), [store]);
  useEffect(followItems, [store]);
  useEffect(followCopies, [store]);
  useEffect(followPace, [store]);
  useEffect(followKnots, [store]);
  useEffect(bringEditorWhenIdle, []);
  useEffect(fetchLaterWhenIdle, []);
  useEffect(followWhole, []);
  useEffect(() => {
    if (openId === null || !wide) useReaderRoom.getState().setWhole(false);
  }, [openId, wide]);
  const arranging = useArranging((state) => state.isOpen);
  const whole = useReaderRoom((state) => state.whole);
  useNewsFromServer();
  useShared();
  useFileDrop();
  useKeys(
    useMemo(
      () => ({
        '1': () => router.push('/now'),
        '2': () => router.push('/inbox'),
        '3': () => router.push('/queue'),
        '4': () => router.push('/library'),
        '5': () => router.push('/you'),
        s: add.open,
        w: () => void writeOn(openId),
        d: () => openId !== null && void putInLast(asEntries([openId])),
        u: undoLast,
        '?': () => setKeysShown(true),
      }),
      [router, add.open, openId],
    ),
  );
  const main = useRef<HTMLElement>(null);
  const back = useMemo(() => {
    if (wide || (openId === null && isTab(path))) return null;
    return () => {
      if (openId !== null && isTab(path)) router.dismissTo(`/${path}`);
      else if (router.canGoBack()) router.back();
    };
  }, [wide, openId, path, router]);
  useEdgeBack(main, back);
  return (
    <View className="flex-1 bg-ground">
      <StatusLine />
      <View className={wide ? 'flex-1 flex-row' : 'flex-1'}>
        {wide && !whole && <TabBar wide />}
        <View className="min-h-0 min-w-0 flex-1">
          <View className="min-h-0 min-w-0 flex-1">
            <View ref={main as never} role="main" className="min-h-0 min-w-0 flex-1">
              <Boundary at={path} what="This screen">
                {children}
              </Boundary>
            </View>
            <NoticeBar />
          </View>
          <Player openId={openId} />
        </View>
        {!wide && openId === null && <BarBelow />}
      </View>
      {wide && <DropShelf openId={openId} />}
      {add.isOpen && <AddSheet />}
      {writing && <NoteSheet writing={writing} />}
      {things && <PutInSheet things={things} />}
      {arranging && <ArrangeNow onClose={() => useArranging.getState().close()} />}
      {keysShown && <KeysSheet onClose={() => setKeysShown(false)} />}
    </View>
  );
}

const PlayerBar = reading.screen('PlayerBar');

/** The player, once there is anything to listen with. */
function Player({ openId }: { openId: string | null }) {
  const store = useAccount((state) => state.store);
  const here = reading.use();
  useEffect(() => here?.startPlayer(), [here]);
  useEffect(() => here?.bringVoices(), [here, store]);
  return here && <PlayerBar openId={openId} />;
}

/** Out of the way of a text from the frame on that shows it, so that the text is not laid out twice. */
function BarBelow() {
  return useAhead((state) => state.shown) ? null : <TabBar wide={false} />;
}

/** Later than screens, in milliseconds: who writes has read first. */
const EDITOR_MS = 6000;
const bringEditorWhenIdle = () => whenQuiet(EDITOR_MS, () => void bringEditor());

/** Begins a note: on the item that is open, or one that stands free. */
async function writeOn(itemId: string | null): Promise<void> {
  const item = itemId ? await useAccount.getState().store?.items.get(itemId) : undefined;
  const about = item ? titleOf(item) : null;
  const on = { kind: item ? 'item' : 'nothing' } as const;
  useNoteSheet.getState().write({ note: null, itemId: item?.id ?? null, on, about });
}

/** Takes back what was done last, while the notice of it is shown. */
function undoLast(): void {
  const { notice, clear } = useNotices.getState();
  if (notice?.action?.label !== 'Undo') return;
  clear();
  notice.action.press();
}

/** Tells what the server said: that a save was in the library already, or that a change could not be taken. */
function useNewsFromServer(): void {
  const news = useSync((state) => state.news);
  const store = useAccount((state) => state.store);
  const show = useNotices((state) => state.show);
  useEffect(() => {
    const [first, ...rest] = news;
    if (!first || !store) return;
    useSync.setState({ news: rest });
    if (first.kind === 'refused') show({ text: first.says });
    else void store.items.get(first.itemId).then((item) => item && show({ text: alreadySavedWords(item) }));
  }, [news, store, show]);
}
