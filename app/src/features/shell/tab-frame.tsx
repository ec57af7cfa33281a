import { Slot, useGlobalSearchParams, usePathname, useRouter } from 'expo-router';
import { Activity, memo, useDeferredValue, useEffect, useLayoutEffect, useRef } from 'react';
import { View } from 'react-native';
import { useAhead } from '@/article/prerender';
import { LIST_WIDTH, ListScreen } from '@/features/library/list-screen';
import { Preview } from '@/features/library/preview';
import { NowScreen } from '@/features/now/now-screen';
import { useReaderRoom } from '@/features/reader/reader-room';
import { unfold } from '@/navigation/opened-from';
import { type Tab, TAB_NAMES } from '@/navigation/tabs';
import { Boundary } from '@/ui/boundary';
import { useFocusOnClosing } from '@/ui/follow-focus';
import { useWide } from '@/ui/wide';
import { reading } from './later';

const ReaderScreen = reading.screen('ReaderScreen');

/**
 * A tab with its list and what is open from it: side by side on a wide screen; on a phone one covers the other. The routes
 * below a tab draw nothing themselves, so that a text which was set ahead, out of sight, is the one that is shown.
 */
export function TabFrame({ tab }: { tab: Tab }) {
  const path = usePathname();
  const { at } = useGlobalSearchParams<{ at?: string }>();
  const wide = useWide();
  const openId = idIn(path, tab);
  const hasRoom = useReaderRoom(({ beside, whole }) => beside === 'list' && !whole);
  // Out of sight, not taken apart: its place is kept, and its keys still go to the next item.
  const folded = openId !== null && !hasRoom;
  useFocusOnClosing(openId === null ? null : `/${tab}/${openId}`);
  // What is opened is seen first; the list is marked, or taken apart, in the frames that follow.
  const listed = useDeferredValue(openId);
  const list = (
    <Boundary what="This list">
      <TabList tab={tab} openId={listed} />
    </Boundary>
  );
  return (
    <View className={wide ? 'flex-1 flex-row' : 'flex-1'}>
      {wide && !(tab === 'now' && openId === null) ? (
        <View
          className={folded ? 'overflow-hidden' : 'border-x border-line'}
          style={folded ? FOLDED : { width: LIST_WIDTH }}
        >
          <View className="flex-1" style={folded ? { width: LIST_WIDTH } : undefined}>
            {list}
          </View>
        </View>
      ) : (
        (openId === null || listed === null) && <View className="min-w-0 flex-1">{list}</View>
      )}
      <OpenItem tab={tab} openId={openId} at={at} wide={wide} />
      <Slot />
    </View>
  );
}

/** Nothing in it can be reached by keys or be read aloud. */
const FOLDED = { width: 0, visibility: 'hidden' } as object;

/** What the routes below a tab draw. */
export function DrawnByFrame() {
  return null;
}

interface OpenItemProps {
  tab: Tab;
  openId: string | null;
  /** Where in the text something was found, to be opened there. */
  at: string | undefined;
  wide: boolean;
}

function OpenItem({ tab, openId, at, wide }: OpenItemProps) {
  const { href, shown } = useAhead();
  useEffect(() => {
    // What was set ahead knows the place of then: it is opened once.
    if (openId !== null) useAhead.setState({ href: null, shown: false });
  }, [openId]);
  const aheadId = href === null ? null : idIn(href, tab);
  const isAhead = aheadId !== null && (shown || (openId === null && !wide));
  const router = useRouter();
  const itemId = isAhead ? aheadId : openId;
  if (itemId === null)
    return wide && tab !== 'now' ? (
      <Boundary what="What is chosen">
        <Preview tab={tab} />
      </Boundary>
    ) : null;
  const found = isAhead ? undefined : at;
  const out = { label: `Back to ${TAB_NAMES[tab]}`, press: () => router.dismissTo(`/${tab}`) };
  return (
    <Activity key={`${itemId} ${found ?? ''}`} mode={isAhead && !shown ? 'hidden' : 'visible'}>
      <View className={wide ? 'min-w-0 flex-1' : 'absolute inset-0'}>
        {!wide && <Unfolding />}
        <Boundary what="This text" out={wide ? undefined : out}>
          <ReaderScreen tab={tab} itemId={itemId} at={found} />
        </Boundary>
      </View>
    </Activity>
  );
}

/** Lets what it stands in grow out of the row that was pressed, at the moment at which it is shown. */
function Unfolding() {
  const here = useRef<HTMLSpanElement>(null);
  useLayoutEffect(() => {
    const frame = here.current?.parentElement;
    if (frame) unfold(frame);
  }, []);
  return <span ref={here} hidden />;
}

/** The id of the item in an address under a tab. */
function idIn(path: string, tab: Tab): string | null {
  return path.startsWith(`/${tab}/`) ? path.slice(tab.length + 2) : null;
}

const TabList = memo(function PlaceList({ tab, openId }: { tab: Tab; openId: string | null }) {
  return tab === 'now' ? <NowScreen openId={openId} /> : <ListScreen tab={tab} openId={openId} />;
});
