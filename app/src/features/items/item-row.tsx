import { hasText, type Item, tagsOf } from '@dorvel/core/model';
import { goOnFrom, passedOf } from '@dorvel/core/reading';
import { captureWords, leftInWords, lengthInWords, savedShort, sourceOf, titleOf } from '@dorvel/core/wording';
import { Link, useRouter } from 'expo-router';
import Ellipsis from 'lucide-react-native/icons/ellipsis';
import { memo, type MouseEvent, type ReactNode } from 'react';
import { type GestureResponderEvent, Text, View } from 'react-native';
import { followAhead, makeReady } from '@/article/prerender';
import { useKnots } from '@/device/store/knots';
import { useSync } from '@/device/sync/sync-loop';
import { useListSettings } from '@/features/settings/list-settings-store';
import { openedFrom } from '@/navigation/opened-from';
import { IconButton } from '@/ui/button';
import { Icon } from '@/ui/icon';
import { useLongPress } from '@/ui/long-press';
import { Strand } from '@/ui/strand';
import { RowPicture } from './lead-picture';

interface ItemRowProps {
  item: Item;
  href: string;
  /** Open in the reader beside the list. */
  open: boolean;
  /** False when its text is not on this device yet. */
  here: boolean;
  room: number;
  /** Why it is here, in words, instead of when it was saved. */
  reason?: string;
  /** The passage of its text in which it was found. */
  passage?: ReactNode;
  /** What to do with it, instead of the button for everything. */
  action?: ReactNode;
  onMore?(item: Item): void;
  /** It was pressed for long: to be one of several. */
  onSelect?(item: Item): void;
}

/** The longest strand takes this part of a row; its facts stand at its end. */
const STRAND_SHARE = 0.5;

/** An item in a list: what it is, where from, how long, how far. */
export const ItemRow = memo(function ItemRow(props: ItemRowProps) {
  const { item, href, open, here, room, reason, passage, action, onMore, onSelect } = props;
  const { capture, progress } = item;
  const knots = useKnots(({ byItem }) => byItem.get(item.id));
  const tags = tagsOf(item);
  // A press takes a while to become one: time enough to read the text from the device's store, and to set it.
  const ready = here && !open ? () => void makeReady(item, href) : undefined;
  const router = useRouter();
  const long = useLongPress(onSelect && (() => onSelect(item)));
  const pressed = (event: MouseEvent | GestureResponderEvent) => {
    if (event.currentTarget instanceof Element) openedFrom(event.currentTarget);
    followAhead(event, href, () => router.navigate(href));
  };
  const online = useSync((state) => state.online);
  const { pictures, density } = useListSettings();
  const compact = density === 'compact';
  const thumbnail = capture.page?.thumbnail ?? null;
  const icon = capture.page?.icon ?? null;
  const facts = [sourceOf(item), reason === undefined ? savedShort(item) : '', tags.join(', ')]
    .filter(Boolean)
    .join(' · ');
  const isText = hasText(item);
  return (
    <View role="listitem" className={`flex-row border-b border-line ${open ? 'bg-sunken' : ''}`}>
      <Link href={href} asChild onPress={pressed}>
        {/* A plain link: to follow presses, hovering and focus as well would be drawn for every row that is touched. */}
        <View
          aria-current={open ? 'true' : undefined}
          {...(long as object)}
          onPointerDown={(event) => {
            ready?.();
            long?.onPointerDown(event as never);
          }}
          onPointerEnter={ready}
          onFocus={ready}
          className={`held-row min-w-0 flex-1 flex-row pl-[20px] ${compact ? 'py-[6px]' : 'py-[10px]'}`}
        >
          <View className="min-w-0 flex-1">
            <Text numberOfLines={compact ? 1 : 2} className="font-read text-row font-semibold text-ink">
              {titleOf(item)}
            </Text>
            {reason === undefined ? null : <Text className="pt-[2px] font-ui text-small text-accent">{reason}</Text>}
            {passage === undefined ? null : <View className="pt-[5px]">{passage}</View>}
            <View className="flex-row items-center gap-[8px]">
              {capture.page && isText ? (
                <Strand
                  minutes={capture.page.minutes}
                  passed={passedOf(item)}
                  heard={progress.heard}
                  looseEnd={progress.position ? goOnFrom(item) : null}
                  label={lengthInWords(item)}
                  {...(knots ? { knots } : {})}
                  room={room * STRAND_SHARE}
                  trimmed
                />
              ) : null}
              <Text numberOfLines={1} className="min-w-0 flex-1 font-ui text-small text-soft">
                {isText && <Text aria-hidden>{leftInWords(item)} · </Text>}
                {/* With a connection it comes when it is opened. */}
                {capture.page && !here && !online && 'not on this device · '}
                {icon && pictures && <RowPicture key={icon} hash={icon} of="icon" />}
                {facts}
              </Text>
            </View>
            {capture.page?.cameThrough.verdict !== 'whole' ? (
              <Text
                className={`pt-[2px] font-ui text-small ${capture.state === 'failed' || capture.page ? 'text-brick' : 'text-soft'}`}
              >
                {captureWords(capture)}
              </Text>
            ) : null}
          </View>
          {thumbnail && pictures && !compact && <RowPicture key={thumbnail} hash={thumbnail} of="lead" />}
        </View>
      </Link>
      <View className="justify-center pr-[6px]">
        {action}
        {onMore && (
          <IconButton name={`What to do with “${titleOf(item)}”`} onPress={() => onMore(item)}>
            <Icon of={Ellipsis} tone="soft" size={20} />
          </IconButton>
        )}
      </View>
    </View>
  );
});
