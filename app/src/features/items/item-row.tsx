import { hasText, type Item, tagsOf } from '@dorvel/core/model';
import { goOnFrom, passedOf } from '@dorvel/core/reading';
import { captureWords, leftInWords, lengthInWords, savedShort, sourceInLine, titleOf } from '@dorvel/core/wording';
import { useRouter } from 'expo-router';
import Ellipsis from 'lucide-react/dist/esm/icons/ellipsis.mjs';
import { memo, type MouseEvent, type ReactNode } from 'react';
import { followAhead, isPlainPress, makeReady } from '@/article/prerender';
import { useItemsState } from '@/device/store/items';
import { useKnots } from '@/device/store/knots';
import { useSync } from '@/device/sync/sync-loop';
import { useListSettings } from '@/features/settings/list-settings-store';
import { openedFrom } from '@/navigation/opened-from';
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

/**
 * An item in a list: what it is, where from, how long, how far. Of the page's own elements: there are hundreds of them, and each
 * that came of a component of its own would be paid for at every scroll.
 */
export const ItemRow = memo(function ItemRow(props: ItemRowProps) {
  const { href, open, here, room, reason, passage, action, onMore, onSelect } = props;
  // As it is by now: a list is not drawn again for what changes in one of its rows.
  const item = useItemsState(({ byId }) => byId.get(props.item.id)) ?? props.item;
  const { capture, progress } = item;
  const knots = useKnots(({ byItem }) => byItem.get(item.id));
  // A press takes a while to become one: time enough to read the text from the device's store, and to set it.
  const ready = here && !open ? () => void makeReady(item, href) : undefined;
  const router = useRouter();
  const long = useLongPress(onSelect && (() => onSelect(item)));
  const follow = (event: MouseEvent) => {
    openedFrom(event.currentTarget);
    const go = () => router.navigate(href);
    followAhead(event, href, go);
    if (event.defaultPrevented || !isPlainPress(event)) return;
    event.preventDefault();
    go();
  };
  const online = useSync((state) => state.online);
  const { pictures, density } = useListSettings();
  const compact = density === 'compact';
  const thumbnail = capture.page?.thumbnail ?? null;
  const icon = capture.page?.icon ?? null;
  const [source, marks] = [sourceInLine(item), tagsOf(item).join(', ')];
  const day = reason === undefined ? savedShort(item) : '';
  const isText = hasText(item);
  // With a connection it comes when it is opened.
  const isAbsent = capture.page !== null && !here && !online;
  return (
    <div role="listitem" className={`item-row ${open ? 'open' : ''} ${compact ? 'compact' : ''}`}>
      <a
        href={href}
        aria-current={open ? 'true' : undefined}
        className="held-row"
        {...long}
        onClick={follow}
        onPointerDown={(event) => {
          ready?.();
          long?.onPointerDown(event);
        }}
        onPointerEnter={ready}
        onFocus={ready}
      >
        <div className="row-words">
          <div dir="auto" className="row-title">
            {titleOf(item)}
          </div>
          {reason === undefined ? null : (
            <div dir="auto" className="row-line row-reason">
              {reason}
            </div>
          )}
          {passage}
          <div className="row-facts">
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
            <div dir="auto" className="row-line">
              {isText && <span aria-hidden>{leftInWords(item)} · </span>}
              {isAbsent ? (
                <span className="row-source">
                  {['not on this device', source, day, marks].filter(Boolean).join(' · ')}
                </span>
              ) : (
                <>
                  {icon && pictures && <RowPicture key={icon} hash={icon} of="icon" />}
                  <span className="row-source">{source}</span>
                  {day && ` · ${day}`}
                  {marks && <span className="row-tags"> · {marks}</span>}
                </>
              )}
            </div>
          </div>
          {capture.page?.cameThrough.verdict !== 'whole' ? (
            <div className={`row-line ${capture.state === 'failed' || capture.page ? 'row-lack' : ''}`}>
              {captureWords(capture)}
            </div>
          ) : null}
        </div>
        {thumbnail && pictures && !compact && <RowPicture key={thumbnail} hash={thumbnail} of="lead" />}
      </a>
      <div className="row-actions">
        {action}
        {onMore && (
          <button
            type="button"
            className="row-more"
            aria-label={`What to do with “${titleOf(item)}”`}
            onClick={() => onMore(item)}
          >
            <Icon of={Ellipsis} tone="soft" size={20} />
          </button>
        )}
      </div>
    </div>
  );
});
