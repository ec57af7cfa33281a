import { useEffect } from 'react';
import { Pressable, Text, View } from 'react-native';
import { create } from 'zustand';

interface Notice {
  text: string;
  /** What the button beside it does, if there is one. */
  action?: NoticeAction;
  /** What else can be done with it. */
  also?: NoticeAction;
}

interface NoticeAction {
  label: string;
  press(): void;
}

interface NoticeState {
  notice: Notice | null;
  show(notice: Notice): void;
  clear(): void;
}

/** The last thing that happened, in words, with its undo. */
export const useNotices = create<NoticeState>()((set) => ({
  notice: null,
  show: (notice) => set({ notice }),
  clear: () => set({ notice: null }),
}));

const SHOWN_MS = 8000;

/** Stands above the bars at the bottom, so that it never covers what is pressed there. */
export function NoticeBar() {
  const { notice, clear } = useNotices();
  useEffect(() => {
    if (!notice) return undefined;
    const timer = setTimeout(clear, SHOWN_MS);
    return () => clearTimeout(timer);
  }, [notice, clear]);
  return (
    <View
      role="status"
      aria-live="polite"
      className="pointer-events-box-none absolute inset-x-0 bottom-[12px] items-center px-[12px]"
    >
      {notice && (
        <View className="w-full max-w-[520px] flex-row items-center justify-between rounded-[16px] bg-ink px-[18px] py-[6px]">
          <Text className="flex-1 py-[8px] font-ui text-base text-ground">{notice.text}</Text>
          {[notice.also, notice.action].map(
            (action) =>
              action && (
                <Pressable
                  key={action.label}
                  role="button"
                  onPress={() => {
                    clear();
                    action.press();
                  }}
                  className="min-h-[44px] justify-center pl-[16px]"
                >
                  <Text className="font-ui text-base font-semibold text-ground underline">{action.label}</Text>
                </Pressable>
              ),
          )}
        </View>
      )}
    </View>
  );
}
