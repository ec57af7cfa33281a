import { addDays } from '@dorvel/core/reading';
import { type ReactNode, useState } from 'react';
import { View } from 'react-native';
import { dayOf, useToday } from '@/device/store/day';
import { Button } from '@/ui/button';
import { Chip } from '@/ui/chip';
import { Choice } from '@/ui/choice';
import { Setting } from '@/ui/setting';
import { Sheet } from '@/ui/sheet';
import type { HighlightsOrder, HighlightsWanted } from './highlights-view';

const ANY = '';
const ORDERS: readonly { value: HighlightsOrder; label: string; short: string }[] = [
  { value: 'latest', label: 'Newest first', short: '' },
  { value: 'earliest', label: 'Oldest first', short: 'Oldest first' },
  { value: 'title', label: 'By title', short: 'By title' },
];
const SINCE = [
  { value: ANY, label: 'Any day' },
  { value: '7', label: 'The last 7 days' },
  { value: '30', label: 'The last 30 days' },
  { value: '365', label: 'The last year' },
];

interface NarrowMarksProps {
  wanted: HighlightsWanted;
  /** Those that are there to choose from. */
  facets: { tags: readonly string[]; sources: readonly string[] };
  onChange(changes: Partial<HighlightsWanted>): void;
  /** What else stands in the line. */
  children: ReactNode;
}

/** By what else highlights are narrowed: a button that opens the choices, and a chip for each that is made. */
export function NarrowMarks({ wanted, facets, onChange, children }: NarrowMarksProps) {
  const [shown, setShown] = useState(false);
  const today = useToday();
  const days = SINCE.find(({ value }) => value !== ANY && startOf(today, Number(value)) === wanted.since);
  const order = ORDERS.find(({ value }) => value === wanted.order);
  const made: { label: string; undone: Partial<HighlightsWanted> }[] = [
    ...(wanted.tag === null ? [] : [{ label: `#${wanted.tag}`, undone: { tag: null } }]),
    ...(wanted.source === null ? [] : [{ label: wanted.source, undone: { source: null } }]),
    ...(wanted.since === 0 ? [] : [{ label: days?.label ?? `Since ${dayOf(wanted.since)}`, undone: { since: 0 } }]),
    ...(order?.short ? [{ label: order.short, undone: { order: 'latest' as const } }] : []),
  ];
  return (
    <View className="flex-row flex-wrap gap-[8px]">
      <Button label="Filter and sort" onPress={() => setShown(true)} />
      {children}
      {made.map(({ label, undone }) => (
        <Chip key={label} label={`${label} ×`} name={`No longer: ${label}`} on onPress={() => onChange(undone)} />
      ))}
      {shown && (
        <Sheet title="Filter and sort" onClose={() => setShown(false)}>
          <View className="gap-[16px]">
            <Setting label="Marked in">
              <Choice
                name="Marked in"
                options={SINCE}
                value={days?.value ?? ANY}
                onChange={(value) => onChange({ since: value === ANY ? 0 : startOf(today, Number(value)) })}
              />
            </Setting>
            {facets.tags.length > 0 && (
              <Facet
                label="Tag of the item"
                any="Any tag"
                names={facets.tags}
                value={wanted.tag}
                onChange={(tag) => onChange({ tag })}
              />
            )}
            {facets.sources.length > 1 && (
              <Facet
                label="Where it is from"
                any="Anywhere"
                names={facets.sources}
                value={wanted.source}
                onChange={(source) => onChange({ source })}
              />
            )}
            <Setting label="Order">
              <Choice
                name="Order"
                options={ORDERS}
                value={wanted.order}
                onChange={(value) => onChange({ order: value })}
              />
            </Setting>
          </View>
        </Sheet>
      )}
    </View>
  );
}

/** When the first of this many days began, the last of them today. */
function startOf(today: string, days: number): number {
  return new Date(`${addDays(today, 1 - days)}T00:00`).getTime();
}

interface FacetProps {
  label: string;
  /** Says that all will do. */
  any: string;
  names: readonly string[];
  /** Null for all. */
  value: string | null;
  onChange(value: string | null): void;
}

function Facet({ label, any, names, value, onChange }: FacetProps) {
  const options = [{ value: ANY, label: any }, ...names.map((name) => ({ value: name, label: name }))];
  return (
    <Setting label={label}>
      <Choice
        name={label}
        options={options}
        value={value ?? ANY}
        onChange={(chosen) => onChange(chosen === ANY ? null : chosen)}
      />
    </Setting>
  );
}
