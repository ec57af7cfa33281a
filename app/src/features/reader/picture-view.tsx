import Panzoom, { type PanzoomObject } from '@panzoom/panzoom';
import FolderPlus from 'lucide-react-native/icons/folder-plus';
import Minus from 'lucide-react-native/icons/minus';
import Plus from 'lucide-react-native/icons/plus';
import X from 'lucide-react-native/icons/x';
import { useLayoutEffect, useRef } from 'react';
import { View } from 'react-native';
import { usePutIn } from '@/features/collecting/put-in-store';
import { IconButton } from '@/ui/button';
import { Icon } from '@/ui/icon';

/** A picture as large as the screen, to be drawn nearer and moved about. */
export function PictureView({
  src,
  alt,
  itemId,
  onClose,
}: {
  src: string;
  alt: string;
  itemId: string;
  onClose(): void;
}) {
  const hash = /^\/api\/pictures\/([0-9a-f]{64})\.webp$/.exec(src)?.[1];
  const dialog = useRef<HTMLDialogElement>(null);
  const picture = useRef<HTMLImageElement>(null);
  const zoom = useRef<PanzoomObject>(undefined);
  // Before it leaves the page, so that the focus goes back to where it came from.
  useLayoutEffect(() => {
    const shown = dialog.current;
    const image = picture.current;
    if (!shown || !image) return undefined;
    shown.showModal();
    const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
    const made = Panzoom(image, { maxScale: 8, minScale: 1, contain: 'outside', animate: !still });
    zoom.current = made;
    const wheel = (event: WheelEvent) => made.zoomWithWheel(event);
    const pressed = (event: MouseEvent) => made.zoomToPoint(made.getScale() > 1 ? 1 : 3, event);
    const keyed = (event: KeyboardEvent) => {
      const by = { ArrowLeft: [40, 0], ArrowRight: [-40, 0], ArrowUp: [0, 40], ArrowDown: [0, -40] }[event.key];
      if (event.key === '+') made.zoomIn();
      else if (event.key === '-') made.zoomOut();
      else if (by) made.pan(by[0] ?? 0, by[1] ?? 0, { relative: true });
      else return;
      event.preventDefault();
    };
    shown.addEventListener('wheel', wheel, { passive: false });
    image.addEventListener('dblclick', pressed);
    shown.addEventListener('keydown', keyed);
    return () => {
      made.destroy();
      shown.removeEventListener('wheel', wheel);
      image.removeEventListener('dblclick', pressed);
      shown.removeEventListener('keydown', keyed);
      shown.close();
    };
  }, []);
  return (
    <dialog
      ref={dialog}
      className="picture-view"
      aria-label={alt || 'Picture'}
      onCancel={(event) => {
        event.preventDefault();
        onClose();
      }}
    >
      <img ref={picture} src={src} alt={alt} />
      <View className="absolute right-[10px] top-[10px] flex-row gap-[6px] rounded-[14px] bg-raised">
        {hash !== undefined && (
          <IconButton
            name="Into a dossier"
            onPress={() => {
              onClose();
              usePutIn.getState().ask([{ kind: 'picture', itemId, hash, text: alt }]);
            }}
          >
            <Icon of={FolderPlus} tone="ink" size={22} />
          </IconButton>
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
