import { hostOf } from '@dorvel/core/address';
import type { Echo } from '@dorvel/core/echo';
import type { Item } from '@dorvel/core/model';
import { inMinutes, sourceInLine, titleOf } from '@dorvel/core/wording';
import { Link } from 'expo-router';
import ChevronDown from 'lucide-react/dist/esm/icons/chevron-down.mjs';
import ChevronUp from 'lucide-react/dist/esm/icons/chevron-up.mjs';
import { Pressable, Text, View } from 'react-native';
import { silence } from '@/device/store/changes';
import { useItemsById } from '@/device/store/items';
import type { PassageOf } from '@/device/workers/relate/relating';
import { usePassages } from '@/device/workers/relate/use-related';
import type { Tab } from '@/navigation/tabs';
import { useWayBack } from '@/navigation/way-back';
import { Button, IconButton } from '@/ui/button';
import { Icon } from '@/ui/icon';
import { useSheetKeys } from '@/ui/keys';
import { namedList } from '@/ui/named-list';
import { useNotices } from '@/ui/notices';
import { Sheet } from '@/ui/sheet';

interface EchoSheetProps {
  /** All of the text, in its order. */
  echoes: readonly Echo[];
  at: number;
  /** The item that is open, and where its text is. */
  item: Item;
  tab: Tab;
  onStep(to: number): void;
  onClose(): void;
}

/** So many items are shown with their passages. */
const MOST = 6;

/** Where else in the library a name or term of the open text stands, each with the passage, and the way there. */
export function EchoSheet({ echoes, at, item, tab, onStep, onClose }: EchoSheetProps) {
  const echo = echoes[at];
  const passages = usePassages(echo?.key ?? '', echo?.items.slice(0, MOST) ?? []);
  const byId = useItemsById();
  const step = (by: 1 | -1) => onStep((echoes.length + at + by) % echoes.length);
  useSheetKeys({ o: () => step(1), ArrowRight: () => step(1), ArrowLeft: () => step(-1) });
  if (!echo) return null;
  const hush = () => {
    const what = { kind: 'term', key: echo.key, form: echo.form } as const;
    onClose();
    void silence(what, true);
    useNotices.getState().show({
      text: `“${echo.form}” is silenced. You lists what is silenced.`,
      action: { label: 'Undo', press: () => void silence(what, false) },
    });
  };
  return (
    <Sheet title={`“${echo.form}” elsewhere`} onClose={onClose}>
      <View className="flex-row items-center gap-[6px]">
        <Text role="status" className="flex-1 font-ui text-small text-soft">
          Echo {at + 1} of {echoes.length} in this text
        </Text>
        <IconButton name="The echo before" onPress={() => step(-1)}>
          <Icon of={ChevronUp} tone="ink" size={20} />
        </IconButton>
        <IconButton name="The next echo" onPress={() => step(1)}>
          <Icon of={ChevronDown} tone="ink" size={20} />
        </IconButton>
      </View>
      {passages === undefined && <Text className="font-ui text-base text-soft">Looking up the passages…</Text>}
      {passages?.length === 0 && (
        <Text className="font-ui text-base text-soft">The texts that speak of it are not on this device any more.</Text>
      )}
      <View {...namedList('Where else', passages?.length ?? 0)}>
        {passages?.map((passage) => {
          const other = byId.get(passage.itemId);
          return other ? (
            <View key={other.id} role="listitem" className="border-b border-line">
              <Link href={`/${tab}/${other.id}?at=${passage.term.start}-${passage.term.end}`} asChild>
                <Pressable
                  className="gap-[3px] py-[11px]"
                  onPress={() => {
                    onClose();
                    const from = { href: `/${tab}/${item.id}?at=${echo.start}-${echo.end}`, title: titleOf(item) };
                    useWayBack.getState().take({ from, toItemId: other.id });
                  }}
                >
                  <Text className="font-read text-row font-semibold text-ink">{titleOf(other)}</Text>
                  <Text className="font-ui text-small text-soft">
                    {sourceInLine(other)} · {inMinutes(other.capture.page?.minutes ?? 0)}
                  </Text>
                  <PassageText passage={passage} />
                </Pressable>
              </Link>
              <LeaveOut item={other} onDone={onClose} />
            </View>
          ) : null;
        })}
      </View>
      {echo.items.length > MOST && (
        <Text className="font-ui text-small text-soft">{echo.items.length - MOST} more of your items speak of it.</Text>
      )}
      <View className="pt-[12px]">
        <Button label="Not this word" onPress={hush} />
      </View>
    </Sheet>
  );
}

function PassageText({ passage: { text, start, term } }: { passage: PassageOf }) {
  const [from, to] = [term.start - start, term.end - start];
  return (
    <Text className="border-l-[2px] border-line pl-[10px] font-read text-base text-ink" numberOfLines={5}>
      {text.slice(0, from)}
      <Text className="font-semibold">{text.slice(from, to)}</Text>
      {text.slice(to)}
    </Text>
  );
}

/** A site of whose texts the reader does not want to be reminded. */
function LeaveOut({ item, onDone }: { item: Item; onDone(): void }) {
  const host = hostOf(item.address);
  if (host === '') return null;
  const what = { kind: 'site', host } as const;
  return (
    <Pressable
      role="button"
      onPress={() => {
        onDone();
        void silence(what, true);
        useNotices.getState().show({
          text: `${host} is left out of echoes. You lists what is silenced.`,
          action: { label: 'Undo', press: () => void silence(what, false) },
        });
      }}
      className="min-h-[44px] justify-center"
    >
      <Text className="font-ui text-small text-accent">Leave out {host}</Text>
    </Pressable>
  );
}
