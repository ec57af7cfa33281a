import { Link, Slot, usePathname } from 'expo-router';
import ChevronLeft from 'lucide-react/dist/esm/icons/chevron-left.mjs';
import { Pressable, Text, View } from 'react-native';
import { Boundary } from '@/ui/boundary';
import { Icon } from '@/ui/icon';
import { useWide } from '@/ui/wide';
import { YouIndex } from './you-index';

const INDEX_WIDTH = 340;

/** The index of You and what is open from it: side by side on a wide screen; on a phone one after the other. */
export function YouFrame({ first }: { first: string }) {
  const wide = useWide();
  const path = usePathname();
  const isIndex = path === '/you';
  if (wide)
    return (
      <View className="flex-1 flex-row">
        <View className="border-x border-line" style={{ width: INDEX_WIDTH }}>
          <YouIndex at={isIndex ? first : path} />
        </View>
        <View className="min-w-0 flex-1">
          <Boundary at={path} what="This screen">
            <Slot />
          </Boundary>
        </View>
      </View>
    );
  return (
    <View className="flex-1">
      {!isIndex && <BackToIndex />}
      <View className="min-h-0 flex-1">
        <Slot />
      </View>
    </View>
  );
}

function BackToIndex() {
  return (
    <Link href="/you" asChild>
      <Pressable aria-label="Back to You" className="min-h-[44px] flex-row items-center gap-[4px] self-start px-[14px]">
        <Icon of={ChevronLeft} tone="ink" size={20} />
        <Text className="font-ui text-base text-ink">You</Text>
      </Pressable>
    </Link>
  );
}
