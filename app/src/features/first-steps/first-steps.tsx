import { Unreachable } from '@dorvel/core/client';
import type { Item } from '@dorvel/core/model';
import { type Href, useRouter } from 'expo-router';
import Check from 'lucide-react/dist/esm/icons/check.mjs';
import ChevronRight from 'lucide-react/dist/esm/icons/chevron-right.mjs';
import { Pressable, Text, View } from 'react-native';
import { silence } from '@/device/store/changes';
import { useSilences } from '@/device/store/library';
import { useAddSheet } from '@/features/add/add-store';
import { Button } from '@/ui/button';
import { Icon } from '@/ui/icon';
import { useNotices } from '@/ui/notices';
import { SectionHeading } from '@/ui/section-heading';
import { guideKey, saveGuide } from './guide';
import { guideAmong, isBeginning, type Step } from './steps';
import { useSteps } from './use-beginning';

const WORDS: Readonly<Record<Step, { label: string; about: string }>> = {
  guide: { label: 'Read how it works', about: 'An article to be read, marked and heard' },
  'bring-in': { label: 'Bring in what you have', about: 'Bookmarks, lists, tables, saved pages, e-books' },
  button: { label: 'Put a button into your browser', about: 'It saves the page as you see it' },
  phone: { label: 'Put Dorvel on your phone', about: 'Then it is in the share sheet' },
  feed: { label: 'Follow a feed', about: 'What is new there waits to be chosen from' },
  mail: { label: 'Mail yourself something', about: 'A link or a newsletter, to an address of your own' },
};

const PLACES: Readonly<Partial<Record<Step, Href>>> = {
  button: '/you/elsewhere',
  phone: '/you/device',
  feed: '/feeds',
  mail: '/you/elsewhere',
};

const FIRST_STEPS = { kind: 'first-steps' } as const;

/** At the beginning of a library, on Now: what to do first. Nothing later, or once it was put away. */
export function FirstStepsOnNow({ items }: { items: readonly Item[] }) {
  const silences = useSilences();
  const show = useNotices((state) => state.show);
  // Until it is known whether they were put away they do not come, only to go again.
  if (!silences || silences.some(({ what }) => what.kind === 'first-steps') || !isBeginning(items, Date.now()))
    return null;
  return (
    <View role="region" aria-label="First steps" className="gap-[6px] px-[20px] pt-[22px]">
      <SectionHeading>First steps</SectionHeading>
      <StepList items={items} />
      <View className="items-start pt-[8px]">
        <Button
          label="Hide these"
          onPress={() => {
            void silence(FIRST_STEPS, true);
            show({
              text: 'Hidden on all your devices. You has them still: First steps.',
              action: { label: 'Undo', press: () => void silence(FIRST_STEPS, false) },
            });
          }}
        />
      </View>
    </View>
  );
}

/** The first steps, those that were taken ticked off. */
export function StepList({ items }: { items: readonly Item[] }) {
  const { offered, taken } = useSteps(items);
  const router = useRouter();
  const openAdd = useAddSheet((state) => state.open);
  const show = useNotices((state) => state.show);
  const openGuide = async () => {
    try {
      router.push(`/inbox/${guideAmong(items, guideKey())?.id ?? (await saveGuide())}`);
    } catch (error) {
      if (!(error instanceof TypeError) && !(error instanceof Unreachable)) throw error;
      show({ text: 'The guide is not on this device yet. Try again when you are online.' });
    }
  };
  const take = (step: Step) => {
    const place = PLACES[step];
    if (place) router.push(place);
    else if (step === 'guide') void openGuide();
    else openAdd();
  };
  return (
    <View role="list" aria-label="First steps">
      {offered.map((step) => (
        <View key={step} role="listitem">
          <StepRow step={step} taken={taken.has(step)} onPress={() => take(step)} />
        </View>
      ))}
    </View>
  );
}

function StepRow({ step, taken, onPress }: { step: Step; taken: boolean; onPress(): void }) {
  const { label, about } = WORDS[step];
  return (
    <Pressable
      role="button"
      aria-label={taken ? `${label}: done` : label}
      onPress={onPress}
      className="min-h-[52px] flex-row items-center gap-[12px] border-b border-line py-[8px]"
    >
      <View
        className={`h-[22px] w-[22px] items-center justify-center rounded-[11px] border-[1.5px] ${taken ? 'border-ink bg-ink' : 'border-soft'}`}
      >
        {taken && <Icon of={Check} tone="ground" size={14} />}
      </View>
      <View className="min-w-0 flex-1">
        <Text className={`font-ui text-base ${taken ? 'text-soft' : 'text-ink'}`}>{label}</Text>
        {!taken && <Text className="font-ui text-small text-soft">{about}</Text>}
      </View>
      <Icon of={ChevronRight} tone="soft" size={18} />
    </Pressable>
  );
}
