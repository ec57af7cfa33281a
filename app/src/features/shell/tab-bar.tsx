import { Link, usePathname } from 'expo-router';
import type { LucideIcon } from 'lucide-react';
import BookOpen from 'lucide-react/dist/esm/icons/book-open.mjs';
import Hourglass from 'lucide-react/dist/esm/icons/hourglass.mjs';
import Inbox from 'lucide-react/dist/esm/icons/inbox.mjs';
import ListOrdered from 'lucide-react/dist/esm/icons/list-ordered.mjs';
import Plus from 'lucide-react/dist/esm/icons/plus.mjs';
import User from 'lucide-react/dist/esm/icons/user.mjs';
import { Pressable, Text, View } from 'react-native';
import { useItemsState } from '@/device/store/items';
import { useAddSheet } from '@/features/add/add-store';
import { Icon } from '@/ui/icon';

/** The tab bar: below on a phone, where five are enough for a thumb; at the side on a wide screen. */
export function TabBar({ wide }: { wide: boolean }) {
  const path = usePathname();
  const open = useAddSheet((state) => state.open);
  const undecided = useItemsState((state) => state.inStage.inbox.length);
  const frame = wide ? 'w-[104px] max-h-[480px] pt-[18px]' : 'flex-row border-t pb-[10px] pt-[4px] px-[4px]';
  return (
    <View role="navigation" aria-label="Places" className={`border-line bg-ground ${frame}`}>
      <Place href="/now" label="Now" icon={Hourglass} here={path.startsWith('/now')} />
      <Place
        href="/inbox"
        label={undecided > 0 ? `Inbox ${undecided}` : 'Inbox'}
        icon={Inbox}
        here={path.startsWith('/inbox') || path.startsWith('/sort') || path.startsWith('/feeds')}
      />
      <Pressable role="button" aria-label="Save an address" onPress={open} className={SLOT}>
        <View className="h-[34px] w-[48px] items-center justify-center rounded-[17px] bg-accent">
          <Icon of={Plus} tone="on-accent" size={22} />
        </View>
        <Text className="font-ui text-small text-ink">Save</Text>
      </Pressable>
      <Place href="/queue" label="Queue" icon={ListOrdered} here={path.startsWith('/queue')} />
      <Place
        href="/library"
        label="Library"
        icon={BookOpen}
        here={path.startsWith('/library') || path.startsWith('/tags')}
      />
      {wide && (
        <Place
          href="/you"
          label="You"
          icon={User}
          here={/^\/(?:you|doing|look-back|marks|notes|cards|work-over|from-memory)/.test(path)}
        />
      )}
    </View>
  );
}

/** On a phone the tabs share the bar's width; at the side each takes the height it needs. */
const SLOT = 'min-h-[60px] flex-1 items-center justify-center gap-[3px]';

function Place({ href, label, icon, here }: { href: string; label: string; icon: LucideIcon; here: boolean }) {
  return (
    <Link href={href} asChild>
      <Pressable aria-current={here ? 'page' : undefined} className={SLOT}>
        <View className={`h-[3px] w-[26px] rounded-[2px] ${here ? 'bg-accent' : 'bg-transparent'}`} />
        <Icon of={icon} tone={here ? 'ink' : 'soft'} />
        <Text className={`font-ui text-small ${here ? 'font-semibold text-ink' : 'text-soft'}`}>{label}</Text>
      </Pressable>
    </Link>
  );
}
