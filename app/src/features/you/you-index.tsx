import { HOW_MUCH_WORDS } from '@dorvel/core/model';
import { Link } from 'expo-router';
import ChevronRight from 'lucide-react/dist/esm/icons/chevron-right.mjs';
import { useState } from 'react';
import { Pressable, ScrollView, Text, View } from 'react-native';
import { useAccount } from '@/device/store/account';
import { useKeptCopies } from '@/device/store/kept-copies';
import { useKeptBytes, useSetAside, useWaitingCount } from '@/device/store/library';
import { useListeningSettings } from '@/features/listen/listening-settings-store';
import { useListSettings } from '@/features/settings/list-settings-store';
import { TYPEFACES, useReadingSettings } from '@/features/settings/reading-settings-store';
import { useSavingSettings } from '@/features/settings/saving-settings-store';
import { Icon } from '@/ui/icon';
import { useKeptScroll } from '@/ui/kept-scroll';
import { ScreenHeader } from '@/ui/screen-header';
import { SearchField } from '@/ui/search-field';
import { SectionHeading } from '@/ui/section-heading';
import { GROUPS, type Match, matching } from './entries';

/**
 * What is the reader's own, by its groups, to be looked through or looked up.
 *
 * @param at the address of what stands beside it; null where it has the screen for itself
 */
export function YouIndex({ at }: { at: string | null }) {
  const [written, setWritten] = useState('');
  const found = matching(GROUPS, written);
  const states = useStates();
  const scroll = useKeptScroll('you');
  return (
    <ScrollView {...scroll} className="flex-1 bg-ground" contentContainerClassName="pb-[40px]">
      <View className="px-[20px]">
        <ScreenHeader title="You">
          <SearchField name="Find a setting" placeholder="Find a setting" value={written} onChange={setWritten} />
        </ScreenHeader>
        <Text role="status" className="font-ui text-base text-soft">
          {found.length === 0 ? `Nothing here is called “${written.trim()}”.` : ''}
        </Text>
      </View>
      {found.map(({ title, entries }) => (
        <View key={title} role="region" aria-label={title} className="pb-[20px]">
          <View className="px-[20px] pb-[4px]">
            <SectionHeading>{title}</SectionHeading>
          </View>
          <View role="list">
            {entries.map((entry) => (
              <EntryRow key={entry.href} entry={entry} state={states[entry.href] ?? ''} here={entry.href === at} />
            ))}
          </View>
        </View>
      ))}
      <Text className="px-[20px] font-ui text-small text-soft">
        Dorvel is free software under the GNU General Public License, version 3 or later.
      </Text>
    </ScrollView>
  );
}

function EntryRow({ entry, state, here }: { entry: Match; state: string; here: boolean }) {
  const about = entry.by ?? state;
  return (
    <View role="listitem">
      <Link href={entry.href} asChild>
        <Pressable
          aria-current={here ? 'page' : undefined}
          className={`min-h-[52px] flex-row items-center gap-[10px] border-b border-line px-[20px] py-[8px] ${here ? 'bg-sunken' : ''}`}
        >
          <View className="min-w-0 flex-1">
            <Text className="font-ui text-base text-ink">{entry.label}</Text>
            {about !== '' && <Text className="font-ui text-small text-soft">{about}</Text>}
          </View>
          <Icon of={ChevronRight} tone="soft" size={18} />
        </Pressable>
      </Link>
    </View>
  );
}

const THEMES = { day: 'day', night: 'night', system: 'as the system' } as const;

/** What is set now, said in the row that leads to it. */
function useStates(): Readonly<Record<string, string>> {
  const { typeface, size, theme } = useReadingSettings();
  const { pictures, density } = useListSettings();
  const rate = useListeningSettings((state) => state.rate);
  const howMuch = useSavingSettings((state) => state.howMuch);
  const account = useAccount((state) => state.account);
  return {
    '/you/text': `${TYPEFACES[typeface].label}, ${size} px, ${THEMES[theme]}`,
    '/you/lists': `${pictures ? 'With' : 'Without'} pictures, ${density}`,
    '/you/listening': `${rate.toFixed(1)}×`,
    '/you/saving': HOW_MUCH_WORDS[howMuch],
    '/you/device': useDeviceWords(),
    '/you/account': account?.mail ?? '',
  };
}

function useDeviceWords(): string {
  const kept = useKeptCopies();
  const bytes = useKeptBytes();
  const waiting = useWaitingCount();
  const aside = useSetAside().length;
  if (aside > 0) return `${aside} ${aside === 1 ? 'change was' : 'changes were'} not taken by the server`;
  if (!kept || bytes === undefined) return '';
  const articles = `${kept.size} ${kept.size === 1 ? 'article' : 'articles'}, ${Math.round(bytes / 1_000_000)} MB`;
  return waiting > 0 ? `${articles}; ${waiting} to be sent` : articles;
}
