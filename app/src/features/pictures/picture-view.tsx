import type { Item, PictureFacts } from '@dorvel/core/model';
import { isUnsure, type PlacedWord } from '@dorvel/core/picture';
import Panzoom, { type PanzoomObject } from '@panzoom/panzoom';
import ChevronLeft from 'lucide-react/dist/esm/icons/chevron-left.mjs';
import ChevronRight from 'lucide-react/dist/esm/icons/chevron-right.mjs';
import ExternalLink from 'lucide-react/dist/esm/icons/external-link.mjs';
import FolderPlus from 'lucide-react/dist/esm/icons/folder-plus.mjs';
import Minus from 'lucide-react/dist/esm/icons/minus.mjs';
import Plus from 'lucide-react/dist/esm/icons/plus.mjs';
import X from 'lucide-react/dist/esm/icons/x.mjs';
import { type CSSProperties, useLayoutEffect, useRef } from 'react';
import { View } from 'react-native';
import type { Piece } from '@/article/article-body';
import { usePutIn } from '@/features/collecting/put-in-store';
import { IconButton } from '@/ui/button';
import { Icon } from '@/ui/icon';

/** A picture seen large. */
export interface Shown {
  src: string;
  alt: string;
}

interface PictureViewProps extends Shown {
  item: Item;
  /** The page that it is from. */
  source: string | null;
  /** The words that stand in the item's own pictures. */
  words: readonly PlacedWord[];
  /** Pieces to be outlined, by the address of the picture. */
  pieces: ReadonlyMap<string, readonly Piece[]>;
  /** Shows another of the item's own pictures. */
  onShow(picture: Shown): void;
  onClose(): void;
}

const addressOf = (hash: string) => `/api/pictures/${hash}.webp`;

/** A picture as large as the screen, to be drawn nearer and moved about; over it the words that stand in it, to be selected. */
export function PictureView({ src, alt, item, source, words, pieces, onShow, onClose }: PictureViewProps) {
  const hash = /^\/api\/pictures\/([0-9a-f]{64})\.webp$/.exec(src)?.[1];
  const own = item.capture.page?.pictures ?? [];
  const at = own.findIndex((each) => each.hash === hash);
  const facts = own[at];
  const to = (picture: (typeof own)[number] | undefined) =>
    picture ? () => onShow({ src: addressOf(picture.hash), alt: '' }) : null;
  const [earlier, later] = at < 0 ? [null, null] : [to(own[at - 1]), to(own[at + 1])];
  const dialog = useRef<HTMLDialogElement>(null);
  const sheet = useRef<HTMLDivElement>(null);
  const zoom = useRef<PanzoomObject>(undefined);
  const step = useRef({ earlier, later });
  step.current = { earlier, later };
  // Before it leaves the page, so that the focus goes back to where it came from.
  useLayoutEffect(() => {
    const shown = dialog.current;
    shown?.showModal();
    return () => shown?.close();
  }, []);
  useLayoutEffect(() => {
    const shown = dialog.current;
    const moved = sheet.current;
    if (!shown || !moved) return undefined;
    // The button that led here may be gone, and the keys with it.
    if (!shown.contains(document.activeElement)) shown.focus();
    const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
    // Words are selected, not moved.
    const made = Panzoom(moved, {
      maxScale: 8,
      minScale: 1,
      contain: 'outside',
      animate: !still,
      excludeClass: 'word',
    });
    zoom.current = made;
    const wheel = (event: WheelEvent) => made.zoomWithWheel(event);
    const pressed = (event: MouseEvent) => {
      if (event.target instanceof Element && event.target.closest('.word')) return;
      made.zoomToPoint(made.getScale() > 1 ? 1 : 3, event);
    };
    const keyed = (event: KeyboardEvent) => {
      const by = { ArrowLeft: [40, 0], ArrowRight: [-40, 0], ArrowUp: [0, 40], ArrowDown: [0, -40] }[event.key];
      const other = { PageUp: step.current.earlier, PageDown: step.current.later }[event.key];
      const sideways = { ArrowLeft: step.current.earlier, ArrowRight: step.current.later }[event.key];
      if (event.key === '+') made.zoomIn();
      else if (event.key === '-') made.zoomOut();
      else if (other) other();
      // What is not drawn nearer cannot be moved: the same keys lead to the next.
      else if (sideways && made.getScale() === 1) sideways();
      else if (by) made.pan(by[0] ?? 0, by[1] ?? 0, { relative: true });
      else return;
      event.preventDefault();
    };
    const swiped = swipes(() => made.getScale() === 1, step);
    shown.addEventListener('wheel', wheel, { passive: false });
    moved.addEventListener('dblclick', pressed);
    shown.addEventListener('keydown', keyed);
    // Before what moves the picture, which lets nobody else have it.
    shown.addEventListener('pointerdown', swiped.down, true);
    shown.addEventListener('pointerup', swiped.up);
    return () => {
      made.destroy();
      shown.removeEventListener('wheel', wheel);
      moved.removeEventListener('dblclick', pressed);
      shown.removeEventListener('keydown', keyed);
      shown.removeEventListener('pointerdown', swiped.down, true);
      shown.removeEventListener('pointerup', swiped.up);
    };
  }, [src]);
  const here = words.filter((each) => each.hash === hash);
  return (
    <dialog
      ref={dialog}
      tabIndex={-1}
      className="picture-view"
      aria-label={alt || (own.length > 1 && at >= 0 ? `Picture ${at + 1} of ${own.length}` : 'Picture')}
      onCancel={(event) => {
        event.preventDefault();
        onClose();
      }}
    >
      <div ref={sheet} className="picture-sheet">
        {/* Of its own proportions, so that what lies over it lies where it belongs. */}
        <div className="picture-frame" style={frameOf(facts)}>
          <img src={src} alt={alt} draggable={false} />
          {(pieces.get(src) ?? []).map(([left, top, width, height]) => (
            <span
              key={`${left} ${top}`}
              className="piece-outlined"
              style={{ left: `${left / 10}%`, top: `${top / 10}%`, width: `${width / 10}%`, height: `${height / 10}%` }}
            />
          ))}
          {here.map(({ place, word }) => (
            <span
              key={place}
              className={isUnsure(word) ? 'word unsure' : 'word'}
              style={{
                left: `${word.box[0] / 10}%`,
                top: `${word.box[1] / 10}%`,
                width: `${word.box[2] / 10}%`,
                height: `${word.box[3] / 10}%`,
                fontSize: `${(word.box[3] / 10) * 0.8}cqh`,
              }}
            >
              {word.text}{' '}
            </span>
          ))}
        </div>
      </div>
      <View className="absolute right-[10px] top-[10px] flex-row gap-[6px] rounded-[14px] bg-raised">
        {earlier && (
          <IconButton name="Picture before" onPress={earlier}>
            <Icon of={ChevronLeft} tone="ink" size={22} />
          </IconButton>
        )}
        {later && (
          <IconButton name="Next picture" onPress={later}>
            <Icon of={ChevronRight} tone="ink" size={22} />
          </IconButton>
        )}
        {hash !== undefined && (
          <IconButton
            name="Into a dossier"
            onPress={() => {
              onClose();
              usePutIn.getState().ask([{ kind: 'picture', itemId: item.id, hash, text: alt }]);
            }}
          >
            <Icon of={FolderPlus} tone="ink" size={22} />
          </IconButton>
        )}
        {source !== null && (
          <a className="icon-link" href={source} target="_blank" rel="noreferrer noopener" aria-label="Its source">
            <Icon of={ExternalLink} tone="ink" size={22} />
          </a>
        )}
        <IconButton name="Farther" onPress={() => zoom.current?.zoomOut()}>
          <Icon of={Minus} tone="ink" size={22} />
        </IconButton>
        <IconButton name="Nearer" onPress={() => zoom.current?.zoomIn()}>
          <Icon of={Plus} tone="ink" size={22} />
        </IconButton>
        <IconButton name="Close the picture" onPress={onClose}>
          <Icon of={X} tone="ink" size={22} />
        </IconButton>
      </View>
    </dialog>
  );
}

/** As large as fits; the words over it are as high as their lines. */
function frameOf(facts: PictureFacts | undefined): CSSProperties | undefined {
  if (!facts) return undefined;
  const proportion = facts.width / facts.height;
  return { aspectRatio: proportion, containerType: 'size', '--proportion': proportion } as CSSProperties;
}

const SWIPE = 60;

/** A stroke sideways over a picture that is not drawn nearer leads to the one before or the next. */
function swipes(
  isFree: () => boolean,
  step: { current: { earlier: (() => void) | null; later: (() => void) | null } },
): { down(event: PointerEvent): void; up(event: PointerEvent): void } {
  let from: PointerEvent | null = null;
  return {
    down: (event) => void (from = event.pointerType === 'touch' && event.isPrimary && isFree() ? event : null),
    up(event) {
      const across = from ? event.clientX - from.clientX : 0;
      const down = from ? Math.abs(event.clientY - from.clientY) : 0;
      from = null;
      if (Math.abs(across) < SWIPE || down > Math.abs(across) / 2) return;
      (across > 0 ? step.current.earlier : step.current.later)?.();
    },
  };
}
