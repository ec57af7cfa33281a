import { Slot, usePathname } from 'expo-router';
import { Activity, memo, useDeferredValue, useEffect } from 'react';
import { View } from 'react-native';
import { useAhead } from '@/article/prerender';
import { useHighlights, useNotes } from '@/device/store/library';
import { Boundary } from '@/ui/boundary';
import { DossierScreen } from './dossier-screen';
import { DossiersScreen } from './dossiers-screen';

/**
 * The dossiers and the one that is open. The routes below draw nothing, so that one that was set ahead, out of sight, is the one
 * that is shown; the list is kept as it was left.
 */
export function DossiersFrame() {
  const openId = idIn(usePathname());
  const ahead = useAhead();
  const aheadId = ahead.href === null ? null : idIn(ahead.href);
  // Read before they are needed: what is out of sight reads nothing itself.
  useHighlights();
  useNotes();
  useEffect(() => {
    if (openId !== null) useAhead.setState({ href: null, shown: false });
  }, [openId]);
  const isAhead = aheadId !== null && (ahead.shown || openId === null);
  const shownId = isAhead ? aheadId : openId;
  const isSeen = !isAhead || ahead.shown;
  // What is opened is seen first; the list goes in the frames that follow.
  const listed = useDeferredValue(openId) === null;
  return (
    <View className="flex-1">
      <Activity mode={listed ? 'visible' : 'hidden'}>
        <View className="flex-1">
          <List />
        </View>
      </Activity>
      {shownId !== null && (
        <Activity key={shownId} mode={isSeen ? 'visible' : 'hidden'}>
          <View className="absolute inset-0">
            <Boundary what="This dossier">
              <Open dossierId={shownId} />
            </Boundary>
          </View>
        </Activity>
      )}
      <Slot />
    </View>
  );
}

/** The id of the dossier at a path of the app; null at every other. */
function idIn(path: string): string | null {
  return path.startsWith('/dossiers/') ? path.slice('/dossiers/'.length) : null;
}

// The press on one draws neither of them anew.
const List = memo(DossiersScreen);
const Open = memo(DossierScreen);
