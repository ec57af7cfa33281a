import { chosenItems, compileDossier, inOrder } from '@dorvel/core/dossier';
import { DossierChoices } from '@dorvel/core/model';
import { Link, useRouter } from 'expo-router';
import { type ReactNode, useEffect, useState } from 'react';
import { ScrollView, Text, View } from 'react-native';
import { followAhead, setAhead } from '@/article/prerender';
import { useItemsById, useStandIns } from '@/device/store/items';
import { useDossierEntries, useDossiers } from '@/device/store/library';
import { putInNew } from '@/features/collecting/put-in-store';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { namedList } from '@/ui/named-list';
import { ScreenHeader } from '@/ui/screen-header';
import { StillReading } from '@/ui/still-reading';
import { LaidEndToEnd } from './laid-end-to-end';

/** All dossiers, the one that was worked on last first. */
export function DossiersScreen() {
  const dossiers = useDossiers();
  const entries = useDossierEntries();
  const byId = useItemsById();
  const standIns = useStandIns();
  const [sought, setSought] = useState('');
  const first = dossiers?.[0]?.id;
  useEffect(() => {
    if (!first || !('requestIdleCallback' in globalThis)) return undefined;
    const idle = requestIdleCallback(() => setAhead(`/dossiers/${first}`));
    return () => cancelIdleCallback(idle);
  }, [first]);
  if (!dossiers || !entries) return <StillReading />;
  const shown = dossiers.filter(({ choices }) =>
    choices.title.value.toLocaleLowerCase().includes(sought.trim().toLocaleLowerCase()),
  );
  return (
    <ScrollView
      className="flex-1 bg-ground"
      contentContainerClassName="mx-auto w-full max-w-[720px] gap-[18px] px-[20px] pb-[60px]"
    >
      <ScreenHeader title="Dossiers" aside={dossiers.length > 0 ? String(dossiers.length) : ''} />
      <Begin isFirst={dossiers.length === 0} />
      {dossiers.length > 6 && <Field label="Find one" value={sought} onChangeText={setSought} inputMode="search" />}
      <View {...namedList('Dossiers', shown.length)}>
        {shown.map((dossier) => {
          const { parts } = compileDossier(dossier, entries, {
            item: (id) => byId.get(standIns.get(id) ?? id),
            highlight: () => undefined,
            note: () => undefined,
            found: () => [],
          });
          const count = inOrder(entries, dossier.id).length;
          return (
            <View key={dossier.id} role="listitem" className="border-b border-line py-[10px]">
              <DossierLink id={dossier.id}>
                <Text className="font-read text-row font-semibold text-ink">{dossier.choices.title.value}</Text>
                <Text className="font-ui text-small text-soft">
                  {count === 0 ? 'nothing in it yet' : count === 1 ? '1 thing' : `${count} things`}
                </Text>
              </DossierLink>
              <LaidEndToEnd items={chosenItems({ parts })} />
            </View>
          );
        })}
      </View>
    </ScrollView>
  );
}

/** Leads to a dossier; one that is likely to be opened is set ahead. */
function DossierLink({ id, children }: { id: string; children: ReactNode }) {
  const href = `/dossiers/${id}`;
  const router = useRouter();
  const ready = () => setAhead(href);
  return (
    <Link href={href} asChild onPress={(event) => followAhead(event, href, () => router.push(href))}>
      <View
        onPointerDown={ready}
        onPointerEnter={ready}
        onFocus={ready}
        className="min-h-[44px] justify-center gap-[2px]"
      >
        {children}
      </View>
    </Link>
  );
}

function Begin({ isFirst }: { isFirst: boolean }) {
  const [title, setTitle] = useState('');
  const router = useRouter();
  const begin = async () => {
    const named = DossierChoices.shape.title.safeParse(title);
    if (!named.success) return;
    setTitle('');
    router.push(`/dossiers/${await putInNew(named.data, [])}`);
  };
  return (
    <View className="gap-[10px]">
      {isFirst && (
        <Text className="font-ui text-base text-soft">
          A dossier is a set that you choose and put in order: pages, passages, pictures and your own words, to compare,
          to use, and to hand on. Begin one here, or put a thing into one from wherever you see it.
        </Text>
      )}
      <Field label="A new dossier, called" value={title} onChangeText={setTitle} onSubmitEditing={() => void begin()} />
      <View className="items-start">
        <Button label="Begin" kind="main" disabled={title.trim() === ''} onPress={() => void begin()} />
      </View>
    </View>
  );
}
