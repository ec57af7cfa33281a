import type { ReactNode } from 'react';
import { Text, View } from 'react-native';

/** The head of a place: its name, and a few words about its state. */
export function ScreenHeader({
  title,
  aside,
  action,
  children,
}: {
  title: string;
  aside?: string;
  /** A button at the end of the line. */
  action?: ReactNode;
  children?: ReactNode;
}) {
  return (
    <View className="pb-[10px] pt-[16px]">
      <View className="flex-row items-baseline justify-between">
        <Text role="heading" aria-level={1} className="font-read text-title font-semibold text-ink">
          {title}
        </Text>
        <View className="flex-row items-center gap-[4px]">
          {aside ? <Text className="font-ui text-small text-soft">{aside}</Text> : null}
          {action}
        </View>
      </View>
      {children}
    </View>
  );
}
