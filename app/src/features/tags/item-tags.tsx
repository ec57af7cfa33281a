import { hasText, type Item, tagKey, TagName, tagsOf } from '@dorvel/core/model';
import { suggestTags, type TagSuggestion } from '@dorvel/core/nearness';
import { alikeAsNear } from '@dorvel/core/picture';
import { inputWords, reasonForTag } from '@dorvel/core/wording';
import { useMemo, useState } from 'react';
import { Text, View } from 'react-native';
import { tag } from '@/device/store/changes';
import { useItems } from '@/device/store/items';
import { useNamedTags, useRelated } from '@/device/workers/relate/use-related';
import { Button } from '@/ui/button';
import { Chip } from '@/ui/chip';
import { Field } from '@/ui/field';
import { useNotices } from '@/ui/notices';
import { useTags } from './use-tags';

const MAX_NEIGHBOURS = 8;
const MAX_SUGGESTED = 4;
const MAX_OFFERED = 8;

/** The tags of an item: those it has, those that its neighbours suggest, and any other. */
export function ItemTags({ item }: { item: Item }) {
  const items = useItems() ?? [];
  const all = useTags();
  const [written, setWritten] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const show = useNotices((state) => state.show);
  const own = tagsOf(item);
  const keys = useMemo(() => new Set(tagsOf(item).map(tagKey)), [item]);
  const suggested = useSuggestedTags(item, items, keys);
  const put = (name: string) => {
    const parsed = TagName.safeParse(name);
    if (!parsed.success) {
      setFault(inputWords(parsed.error));
      return;
    }
    setFault(null);
    setWritten('');
    // A tag that is known already keeps the spelling that the reader gave it first.
    const known = all.find((each) => each.key === tagKey(parsed.data))?.name ?? parsed.data;
    void tag(item.id, { [tagKey(known)]: known });
  };
  const take = (name: string) => {
    void tag(item.id, { [tagKey(name)]: null });
    show({
      text: `“${name}” is off.`,
      action: { label: 'Undo', press: () => void tag(item.id, { [tagKey(name)]: name }) },
    });
  };
  const begun = tagKey(written);
  const offered = all.filter(({ key }) => !keys.has(key) && (begun === '' || key.includes(begun)));
  return (
    <View className="gap-[14px]">
      {own.length > 0 && (
        <View role="group" aria-label="Its tags" className="flex-row flex-wrap gap-[8px]">
          {own.map((name) => (
            <Chip key={name} label={`${name}  ×`} name={`Take off ${name}`} on onPress={() => take(name)} />
          ))}
        </View>
      )}
      <Field label="Tag" value={written} onChangeText={setWritten} onSubmitEditing={() => put(written)} fault={fault} />
      <Text className="font-ui text-small text-soft">A stroke nests: garden/soil is found under garden too.</Text>
      {begun !== '' && !keys.has(begun) && (
        <Button label={`Put “${written.trim()}” on`} kind="main" onPress={() => put(written)} />
      )}
      {begun === '' && suggested.length > 0 && (
        <View role="group" aria-label="Suggested" className="gap-[8px]">
          {suggested.map((suggestion) => (
            <View key={suggestion.tag} className="flex-row items-center gap-[10px]">
              <Chip
                label={suggestion.tag}
                name={`Put on ${suggestion.tag}, suggested`}
                onPress={() => put(suggestion.tag)}
              />
              <Text className="flex-1 font-ui text-small text-accent">{reasonForTag(suggestion, items)}</Text>
            </View>
          ))}
        </View>
      )}
      {offered.length > 0 && (
        <View role="group" aria-label="Your tags" className="flex-row flex-wrap gap-[8px]">
          {offered.slice(0, MAX_OFFERED).map(({ key, name, count }) => (
            <Chip key={key} label={`${name} ${count}`} name={`Put on ${name}, on ${count}`} onPress={() => put(name)} />
          ))}
        </View>
      )}
    </View>
  );
}

/** Tags that items near to this one have, or pictures like it, and those of the reader's that its text speaks of. */
export function useSuggestedTags(
  item: Item,
  items: readonly Item[],
  own: ReadonlySet<string>,
): readonly TagSuggestion[] {
  const copyId = item.capture.page?.copyId ?? '';
  const isText = hasText(item);
  const related = useRelated(item.id, copyId, MAX_NEIGHBOURS);
  const all = useTags();
  const named = useNamedTags(
    item.id,
    copyId,
    item.capture.page?.language ?? null,
    useMemo(() => all.map(({ name }) => name), [all]),
  );
  return useMemo(() => {
    const alike = alikeAsNear(item, items, MAX_NEIGHBOURS);
    if (!isText && alike.length === 0) return [];
    const byId = new Map(items.map((each) => [each.id, each]));
    const of = (id: string) => {
      const other = byId.get(id);
      return other ? tagsOf(other) : [];
    };
    return suggestTags({
      related: [...(related ?? []), ...alike],
      tagsOf: of,
      named: named ?? [],
      own,
      most: MAX_SUGGESTED,
    });
  }, [item, isText, related, named, items, own]);
}
