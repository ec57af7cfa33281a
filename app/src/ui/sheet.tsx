import X from 'lucide-react/dist/esm/icons/x.mjs';
import { type ReactNode, useLayoutEffect, useRef } from 'react';
import { Text, View } from 'react-native';
import { IconButton } from './button';
import { Icon } from './icon';

interface SheetProps {
  title: string;
  onClose(): void;
  /** It takes the whole screen. */
  whole?: boolean;
  children: ReactNode;
}

/**
 * A sheet for a short decision: from below on a phone, in the middle on a wide screen. It is the browser's own
 * modal dialog, which keeps the focus inside, closes on Escape and makes the rest inert.
 */
export function Sheet({ title, onClose, whole = false, children }: SheetProps) {
  const dialog = useRef<HTMLDialogElement>(null);
  // Before it leaves the page, so that the focus goes back to where it came from.
  useLayoutEffect(() => {
    const element = dialog.current;
    element?.showModal();
    return () => element?.close();
  }, []);
  return (
    // eslint-disable-next-line jsx-a11y/click-events-have-key-events, jsx-a11y/no-noninteractive-element-interactions -- Escape closes it too: the browser's own key
    <dialog
      ref={dialog}
      className={whole ? 'sheet sheet-whole' : 'sheet'}
      aria-label={title}
      onCancel={(event) => {
        event.preventDefault();
        onClose();
      }}
      onClick={(event) => {
        if (event.target === event.currentTarget) onClose();
      }}
    >
      <View className={`px-[20px] pb-[28px] pt-[12px] ${whole ? 'min-h-full flex-1' : ''}`}>
        <View className="mb-[6px] flex-row items-center justify-between">
          <Text role="heading" aria-level={2} className="min-w-0 flex-1 font-read text-head font-semibold text-ink">
            {title}
          </Text>
          <IconButton name="Close" onPress={onClose}>
            <Icon of={X} tone="ink" size={22} />
          </IconButton>
        </View>
        {children}
      </View>
    </dialog>
  );
}
