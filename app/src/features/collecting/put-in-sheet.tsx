import { DossierChoices } from '@dorvel/core/model';
import { useState } from 'react';
import { Text, View } from 'react-native';
import type { NewEntry } from '@/device/store/dossier-changes';
import { useDossierEntries, useDossiers } from '@/device/store/library';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { namedList } from '@/ui/named-list';
import { Sheet } from '@/ui/sheet';
import { putIn, putInNew, usePutIn } from './put-in-store';

/** Asks into which dossier things are put: the one used last first, or a new one. */
export function PutInSheet({ things }: { things: readonly NewEntry[] }) {
  const close = usePutIn((state) => state.close);
  const dossiers = useDossiers();
  const entries = useDossierEntries() ?? [];
  const [title, setTitle] = useState('');
  if (!dossiers) return null;
  const begin = () => {
    const named = DossierChoices.shape.title.safeParse(title);
    if (!named.success) return;
    close();
    void putInNew(named.data, things);
  };
  return (
    <Sheet title={things.length === 1 ? 'Put it in a dossier' : `Put ${things.length} in a dossier`} onClose={close}>
      <View className="gap-[16px]">
        <View {...namedList('Dossiers', dossiers.length)} className="gap-[8px]">
          {dossiers.map(({ id, choices }, at) => {
            const count = entries.filter((each) => each.dossierId === id && !each.choices.removed.value).length;
            return (
              <View key={id} role="listitem">
                <Button
                  label={`${choices.title.value} (${count})`}
                  kind={at === 0 ? 'main' : 'plain'}
                  onPress={() => {
                    close();
                    void putIn({ id, title: choices.title.value }, things);
                  }}
                />
              </View>
            );
          })}
        </View>
        {dossiers.length === 0 && (
          <Text className="font-ui text-base text-soft">
            A dossier is a set that you choose and put in order, with your own words between the things.
          </Text>
        )}
        <Field label="Or a new one, called" value={title} onChangeText={setTitle} onSubmitEditing={begin} />
        <Button label="Begin" disabled={title.trim() === ''} onPress={begin} />
      </View>
    </Sheet>
  );
}
