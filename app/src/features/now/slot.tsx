import type { Item } from '@dorvel/core/model';
import { SLOT_RANGE, type SlotCandidate, slotPlanner } from '@dorvel/core/queue';
import { inMinutes, titleOf } from '@dorvel/core/wording';
import { useMemo } from 'react';
import { Text, View } from 'react-native';
import { Choice } from '@/ui/choice';
import { SectionHeading } from '@/ui/section-heading';
import { Strand } from '@/ui/strand';
import { useSlot } from './slot-store';

interface SlotProps {
  candidates: readonly SlotCandidate[];
  byId: ReadonlyMap<string, Item>;
  /** Width there is, in points. */
  room: number;
}

const CARRIERS = [
  { value: 'eyes', label: 'Eyes' },
  { value: 'ears', label: 'Ears' },
] as const;

/** The minutes the reader has, and what of the Queue fills them: its strands laid end to end. */
export function Slot({ candidates, byId, room }: SlotProps) {
  const { minutes, by, change } = useSlot();
  const plan = useSlotPlan(candidates, minutes);
  const inside = room - 24;
  const gaps = Math.max(0, plan.chosen.length - 1) * GAP;
  return (
    <View role="region" aria-label="Slot" className="gap-[8px]">
      <View className="flex-row items-center justify-between">
        <SectionHeading>{`${minutes} minutes`}</SectionHeading>
        <Choice name="Eyes or ears" options={CARRIERS} value={by} onChange={(value) => change({ by: value })} />
      </View>
      <View
        className="h-[34px] flex-row items-center overflow-hidden rounded-[17px] border-[1.5px] border-soft bg-raised px-[11px]"
        style={{ gap: GAP }}
      >
        {plan.chosen.map((candidate) => {
          const item = byId.get(candidate.id);
          const part = plan.parts.get(candidate.id);
          const taken = part ?? candidate.minutes;
          return item ? (
            <Strand
              key={candidate.id}
              minutes={taken}
              passed={0}
              looseEnd={candidate.begun ? 0 : null}
              label={`${titleOf(item)}, ${part === undefined ? '' : 'to a heading, '}${inMinutes(taken)}`}
              room={Math.max(10, (taken / minutes) * (inside - gaps))}
              filling
            />
          ) : null;
        })}
      </View>
      <input
        type="range"
        className="slot-range"
        aria-label="Minutes you have"
        aria-valuetext={`${minutes} minutes`}
        min={SLOT_RANGE.shortest}
        max={SLOT_RANGE.longest}
        step={SLOT_RANGE.step}
        value={minutes}
        onChange={(event) => change({ minutes: Number(event.target.value) })}
      />
      <Text className="font-ui text-small text-soft" aria-live="polite">
        {planInWords(plan, candidates, minutes, by === 'ears')}
      </Text>
    </View>
  );
}

const GAP = 7;

/** What fills a slot, with what it was chosen from; the plan for every slot is made once for each Queue. */
export function useSlotPlan(candidates: readonly SlotCandidate[], minutes: number) {
  const planner = useMemo(() => slotPlanner(candidates), [candidates]);
  return useMemo(() => {
    const plan = planner(minutes);
    const chosen = plan.ids.flatMap((id) => candidates.filter((candidate) => candidate.id === id));
    return { chosen, minutes: plan.minutes, parts: plan.parts };
  }, [planner, candidates, minutes]);
}

const COUNTED = ['Nothing', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten'];

function planInWords(
  plan: { chosen: readonly SlotCandidate[]; minutes: number; parts: ReadonlyMap<string, number> },
  candidates: readonly SlotCandidate[],
  minutes: number,
  byEar: boolean,
): string {
  if (candidates.length === 0)
    return byEar ? 'Nothing in the Queue can be heard.' : 'Nothing is queued that could fill it.';
  const count = plan.chosen.length;
  if (count === 0) {
    const shortest = Math.min(...candidates.map((candidate) => candidate.minutes));
    return `Nothing of the Queue fits whole; the shortest takes ${inMinutes(shortest)}.`;
  }
  const over = Math.floor(minutes - plan.minutes);
  const left = over < 1 ? 'and fill it' : `with ${over === 1 ? 'one minute' : `${over} minutes`} over`;
  const inPart =
    plan.parts.size === 0
      ? ''
      : ` ${plan.parts.size === 1 ? 'One is' : `${plan.parts.size} are`} taken up to a heading.`;
  return `${COUNTED[count] ?? String(count)} ${count === 1 ? 'fits' : 'fit'}, ${count === 1 && over < 1 ? 'and fills it' : left}.${inPart}`;
}
