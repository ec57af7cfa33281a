import { chosenItems } from '@dorvel/core/dossier';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { ScrollView, Text, View } from 'react-native';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { ScreenHeader } from '@/ui/screen-header';
import { StillReading } from '@/ui/still-reading';
import { AddSheet } from './add-sheet';
import { ChangedSince } from './changed-since';
import { CoverSheet } from './cover-sheet';
import { EntrySheet } from './entry-sheet';
import { FactsView } from './facts-view';
import { LaidEndToEnd } from './laid-end-to-end';
import { OrderView } from './order-view';
import { PageView } from './page-view';
import { useDossier } from './use-dossier';
import { Wall } from './wall';
import { WholeSet } from './whole-set';

type Way = 'page' | 'wall' | 'facts' | 'order';
const WAYS: readonly { value: Way; label: string }[] = [
  { value: 'page', label: 'Page' },
  { value: 'wall', label: 'Wall' },
  { value: 'facts', label: 'Facts' },
  { value: 'order', label: 'Order' },
];

/** A dossier: to be read, compared, put in order, and handed on. */
export function DossierScreen({ dossierId }: { dossierId: string }) {
  const open = useDossier(dossierId);
  const router = useRouter();
  const [way, setWay] = useState<Way>('page');
  const [sheet, setSheet] = useState<
    { kind: 'cover' | 'set' } | { kind: 'add'; at: number } | { kind: 'entry'; id: string } | null
  >(null);
  if (open === undefined) return <StillReading />;
  if (open === null || open.dossier.choices.removed.value)
    return (
      <View className="items-start gap-[14px] p-[20px]">
        <Text className="font-ui text-base text-ink">There is no such dossier on this device.</Text>
        <Button label="All dossiers" onPress={() => router.replace('/dossiers')} />
      </View>
    );
  const { dossier, entries, compiled } = open;
  const items = chosenItems(compiled);
  const close = () => setSheet(null);
  const edit = (id: string) => setSheet({ kind: 'entry', id });
  return (
    <ScrollView className="flex-1 bg-ground">
      <View
        className={`mx-auto w-full gap-[14px] px-[20px] pb-[90px] ${way === 'page' || way === 'order' ? 'max-w-[720px]' : 'max-w-[1200px]'}`}
      >
        <ScreenHeader title={compiled.title} aside={entries.length === 0 ? '' : `${entries.length} in it`} />
        <View className="flex-row flex-wrap gap-[10px]">
          <Button label="Add…" kind="main" onPress={() => setSheet({ kind: 'add', at: entries.length })} />
          <Button label="Cover…" onPress={() => setSheet({ kind: 'cover' })} />
          {items.length > 0 && <Button label="With all of it…" onPress={() => setSheet({ kind: 'set' })} />}
          <Button label="Hand it on…" onPress={() => router.push(`/hand-on?dossier=${dossier.id}`)} />
        </View>
        <ChangedSince key={dossier.id} dossierId={dossier.id} items={items} />
        <LaidEndToEnd items={items} />
        <Choice name="Look at it as" options={WAYS} value={way} onChange={(value) => setWay(value)} oneLine />
        {entries.length === 0 && (
          <Text className="py-[14px] font-ui text-base text-soft">
            Nothing is in it yet. Add things here, or press “Into a dossier” at an item, a highlight, or what you found.
          </Text>
        )}
        {way === 'page' && <PageView compiled={compiled} onEdit={edit} />}
        {way === 'wall' && <Wall compiled={compiled} />}
        {way === 'facts' && <FactsView open={open} />}
        {way === 'order' && <OrderView open={open} onEdit={edit} />}
      </View>
      {sheet?.kind === 'cover' && <CoverSheet open={open} onClose={close} />}
      {sheet?.kind === 'set' && <WholeSet items={items} onClose={close} />}
      {sheet?.kind === 'add' && <AddSheet dossierId={dossier.id} items={items} at={sheet.at} onClose={close} />}
      {sheet?.kind === 'entry' && (
        <EntrySheet open={open} entryId={sheet.id} onAddAfter={(at) => setSheet({ kind: 'add', at })} onClose={close} />
      )}
    </ScrollView>
  );
}
