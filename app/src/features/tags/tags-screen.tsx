import { tagKey, TagName } from '@dorvel/core/model';
import { inputWords } from '@dorvel/core/wording';
import { useRouter } from 'expo-router';
import Ellipsis from 'lucide-react/dist/esm/icons/ellipsis.mjs';
import { useState } from 'react';
import { Pressable, ScrollView, Text, View } from 'react-native';
import { tagAll } from '@/device/store/changes';
import { useItems } from '@/device/store/items';
import { tagFilter, useFindQuery } from '@/features/find/find-store';
import { Button, IconButton } from '@/ui/button';
import { Field } from '@/ui/field';
import { Icon } from '@/ui/icon';
import { namedList } from '@/ui/named-list';
import { useNotices } from '@/ui/notices';
import { ScreenHeader } from '@/ui/screen-header';
import { Sheet } from '@/ui/sheet';
import { tagChanges, type UsedTag, useTags } from './use-tags';

/** All tags, each with how many items have it: to look into, to rename, to merge, to take off everywhere. */
export function TagsScreen() {
  const tags = useTags();
  const router = useRouter();
  const [changing, setChanging] = useState<UsedTag | null>(null);
  return (
    <ScrollView className="flex-1 bg-ground">
      <View className="mx-auto w-full max-w-[640px] px-[20px] pb-[40px]">
        <ScreenHeader title="Tags" aside={tags.length === 1 ? '1 tag' : `${tags.length} tags`} />
        {tags.length === 0 && (
          <Text className="font-ui text-base text-soft">
            No tags yet. Put one on an item with the button beside it, under “Tags”.
          </Text>
        )}
        <View {...namedList('Tags', tags.length)}>
          {tags.map((used) => (
            <View key={used.key} role="listitem" className="flex-row items-center border-b border-line">
              <Pressable
                role="link"
                aria-label={`Find what has ${used.name}, ${used.count}`}
                onPress={() => {
                  useFindQuery.getState().write(`${tagFilter(used.key)} `);
                  router.push('/library');
                }}
                className="min-h-[52px] min-w-0 flex-1 flex-row items-center justify-between pr-[10px]"
                style={{ paddingLeft: 22 * (used.key.split('/').length - 1) }}
              >
                <Text className="font-read text-row text-ink">{used.name.split('/').at(-1)}</Text>
                <Text className="font-ui text-small text-soft">{used.count}</Text>
              </Pressable>
              <IconButton name={`What to do with the tag ${used.name}`} onPress={() => setChanging(used)}>
                <Icon of={Ellipsis} tone="soft" size={20} />
              </IconButton>
            </View>
          ))}
        </View>
      </View>
      {changing && <ChangeTag used={changing} onClose={() => setChanging(null)} />}
    </ScrollView>
  );
}

function ChangeTag({ used, onClose }: { used: UsedTag; onClose(): void }) {
  const items = useItems() ?? [];
  const tags = useTags();
  const [written, setWritten] = useState(used.name);
  const [fault, setFault] = useState<string | null>(null);
  const show = useNotices((state) => state.show);
  const parsed = TagName.safeParse(written);
  const merges =
    parsed.success && tagKey(parsed.data) !== used.key
      ? tags.find(({ key }) => key === tagKey(parsed.data))
      : undefined;
  const carryOut = (to: string | null, says: string) => {
    onClose();
    const changes = tagChanges(items, used.key, to);
    const write = (side: 'set' | 'back') => tagAll(changes.map((each) => ({ itemId: each.itemId, set: each[side] })));
    void write('set');
    show({ text: says, action: { label: 'Undo', press: () => void write('back') } });
  };
  const rename = () => {
    if (!parsed.success) setFault(inputWords(parsed.error));
    else carryOut(parsed.data, merges ? `“${used.name}” is “${merges.name}” now.` : `Renamed to “${parsed.data}”.`);
  };
  return (
    <Sheet title={used.name} onClose={onClose}>
      <View className="gap-[14px]">
        <Text className="font-ui text-small text-soft">
          On {used.count} {used.count === 1 ? 'item' : 'items'}. What nests under it goes along.
        </Text>
        <Field label="Name" value={written} onChangeText={setWritten} onSubmitEditing={rename} fault={fault} />
        {merges && (
          <Text className="font-ui text-small text-accent">
            “{merges.name}” is in use on {merges.count}: the two become one.
          </Text>
        )}
        <Button
          label={merges ? `Merge into “${merges.name}”` : 'Rename'}
          kind="main"
          disabled={written.trim() === used.name}
          onPress={rename}
        />
        <Button
          label="Remove everywhere"
          kind="loss"
          onPress={() => carryOut(null, `“${used.name}” is off everywhere.`)}
        />
      </View>
    </Sheet>
  );
}
