import {
  flowsOf,
  type Forecast,
  forecast,
  HORIZON_WEEKS,
  LEAST_WEEKS,
  meanWait,
  waitingByWeek,
  waitingMinutes,
} from '@dorvel/core/forecast';
import type { Item } from '@dorvel/core/model';
import { proposeLettingGo } from '@dorvel/core/queue';
import { inHours, proposalInWords, titleOf } from '@dorvel/core/wording';
import { useMemo, useState } from 'react';
import { Text, View } from 'react-native';
import { dayOf } from '@/device/store/day';
import { moves } from '@/features/items/moves';
import { Button } from '@/ui/button';
import { namedList } from '@/ui/named-list';
import { SectionHeading } from '@/ui/section-heading';
import { Switch } from '@/ui/setting';
import { ForecastChart } from './forecast-chart';
import { emptyInWords, rangeInWords } from './forecast-words';

const SLOT_MINUTES = 20;
/** Any number will do; the same one, so that the forecast changes only with what it is made from. */
const SEED = 15;

interface ForecastSectionProps {
  items: readonly Item[];
  today: string;
  room: number;
  asTable: boolean;
}

/** When what waits would be read at this pace, if ever, and what would change it: tried on the drawing before it is done. */
export function ForecastSection({ items, today, room, asTable }: ForecastSectionProps) {
  const [slotMore, setSlotMore] = useState(false);
  const [lettingGo, setLettingGo] = useState(false);
  const flows = useMemo(() => flowsOf(items, today, dayOf), [items, today]);
  const proposals = useMemo(() => proposeLettingGo(items, today, dayOf), [items, today]);
  const waiting = waitingMinutes(items);
  const minutesToGo = proposals.reduce((sum, { item }) => sum + (item.capture.page?.minutes ?? 0), 0);
  const usual = useMemo(() => forecast(waiting, flows, SEED), [waiting, flows]);
  const isTrying = slotMore || (lettingGo && proposals.length > 0);
  const tried = useMemo(
    () =>
      isTrying
        ? forecast(waiting, flows, SEED, {
            moreAWeek: slotMore ? SLOT_MINUTES : 0,
            letGoNow: lettingGo ? minutesToGo : 0,
          })
        : null,
    [waiting, flows, isTrying, slotMore, lettingGo, minutesToGo],
  );
  if (!usual)
    return (
      <View role="region" aria-label="Will it ever be empty?" className="gap-[10px]">
        <SectionHeading>Will it ever be empty?</SectionHeading>
        <Text className="font-ui text-base text-soft">
          {LEAST_WEEKS} whole weeks have to lie behind you before the weeks to come can be guessed at; there{' '}
          {flows.length === 1 ? 'is one' : `are ${flows.length}`} so far.
        </Text>
      </View>
    );
  const behind = waitingByWeek(flows, waiting);
  const wait = meanWait(behind, flows);
  const weeks = drawn(tried ?? usual, usual);
  return (
    <View role="region" aria-label="Will it ever be empty?" className="gap-[12px]">
      <SectionHeading>Will it ever be empty?</SectionHeading>
      <Text className="font-ui text-base text-ink">
        {inHours(waiting)} wait in Inbox and Queue. {emptyInWords(usual)}
      </Text>
      <Text className="font-ui text-base text-soft">
        In a week {rangeInWords(flows.map(({ cameIn }) => cameIn))} come in;{' '}
        {rangeInWords(flows.map(({ read }) => read))} are read, {rangeInWords(flows.map(({ heard }) => heard))} heard,{' '}
        {rangeInWords(flows.map(({ letGo }) => letGo))} let go or kept.
        {wait === null ? '' : ` What comes in waits ${weeksInWords(wait)} on average.`}
      </Text>
      {asTable ? (
        <ForecastTable shown={tried ?? usual} weeks={weeks} />
      ) : (
        <ForecastChart behind={behind} usual={usual} tried={tried} weeks={weeks} room={room} />
      )}
      <Text className="font-ui text-small font-semibold text-soft">What would change it</Text>
      <View>
        <Switch label={`One more slot of ${SLOT_MINUTES} minutes a week`} on={slotMore} onChange={setSlotMore} />
        {proposals.length > 0 && (
          <Switch
            label={proposals.length === 1 ? 'Let this one go' : `Let these ${proposals.length} go`}
            about={`${inHours(minutesToGo)} together`}
            on={lettingGo}
            onChange={setLettingGo}
          />
        )}
      </View>
      {tried && (
        <Text role="status" className="font-ui text-base text-ink">
          With that: {emptyInWords(tried)}
        </Text>
      )}
      {lettingGo && proposals.length > 0 && (
        <View className="gap-[10px]">
          <View {...namedList('What would go', proposals.length)}>
            {proposals.map((proposal) => (
              <View key={proposal.item.id} role="listitem" className="border-b border-line py-[8px]">
                <Text className="font-read text-row text-ink">{titleOf(proposal.item)}</Text>
                <Text className="font-ui text-small text-soft">{proposalInWords(proposal)}</Text>
              </View>
            ))}
          </View>
          <View className="items-start">
            <Button
              label={proposals.length === 1 ? 'Let it go' : `Let all ${proposals.length} go`}
              kind="loss"
              onPress={() => {
                setLettingGo(false);
                void moves.moveAll(
                  proposals.map(({ item }) => item),
                  'let-go',
                );
              }}
            />
          </View>
        </View>
      )}
    </View>
  );
}

/** As far ahead as there is something to see, half a year at most. */
function drawn(shown: Forecast, usual: Forecast): number {
  const until = Math.max(...[shown, usual].map(({ emptyIn }) => (emptyIn.high === Infinity ? 26 : emptyIn.high + 2)));
  return Math.min(26, HORIZON_WEEKS, Math.max(8, Math.ceil(until)));
}

function weeksInWords(weeks: number): string {
  return weeks < 1.5 ? 'about a week' : `about ${Math.round(weeks)} weeks`;
}

/** The same in figures: every week for two months, then every fourth. */
function ForecastTable({ shown, weeks }: { shown: Forecast; weeks: number }) {
  const rows = shown.weeks
    .slice(0, weeks)
    .flatMap((range, at) => (at < 8 || (at + 1) % 4 === 0 ? [{ ...range, at }] : []));
  return (
    // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- it scrolls sideways with large text
    <div className="week-table" role="group" aria-label="What would wait" tabIndex={0}>
      <table>
        <thead>
          <tr>
            <th scope="col">In weeks</th>
            <th scope="col">Minutes waiting</th>
            <th scope="col">At least</th>
            <th scope="col">At most</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ at, low, middle, high }) => (
            <tr key={at}>
              <th scope="row">{at + 1}</th>
              <td>{Math.round(middle)}</td>
              <td>{Math.round(low)}</td>
              <td>{Math.round(high)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
