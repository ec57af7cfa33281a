import type { Item } from '@dorvel/core/model';
import { PLAINLY_RELATED } from '@dorvel/core/relate';
import { inMinutes, sharedInWords, sourceOf, titleOf } from '@dorvel/core/wording';
import { Link } from 'expo-router';
import { Pressable, Text, View } from 'react-native';
import { useItemsById } from '@/device/store/items';
import type { KeptCopy } from '@/device/store/store';
import { useRelated } from '@/device/workers/relate/use-related';
import type { Tab } from '@/navigation/tabs';
import { SectionHeading } from '@/ui/section-heading';

const MOST = 5;

/** Under an article: what else of the reader's own library is near to it, and why. */
export function RelatedItems({ item, copy, tab }: { item: Item; copy: KeptCopy; tab: Tab }) {
  const related = useRelated(item.id, copy.id, MOST)?.filter(({ nearness }) => nearness >= PLAINLY_RELATED);
  const byId = useItemsById();
  if (!related || related.length === 0) return null;
  return (
    <View
      role="region"
      aria-label="Related"
      className="mx-auto mt-[36px] w-full max-w-[560px] border-t border-line pt-[20px]"
    >
      <SectionHeading>Related, from your library</SectionHeading>
      <View role="list" className="pt-[4px]">
        {related.map(({ id, shared }) => {
          const other = byId.get(id);
          return other ? (
            <View key={id} role="listitem" className="border-b border-line">
              <Link href={`/${tab}/${id}`} asChild>
                <Pressable className="min-h-[44px] gap-[2px] py-[11px]">
                  <Text className="font-read text-row font-semibold text-ink">{titleOf(other)}</Text>
                  <Text className="font-ui text-small text-soft">
                    {sourceOf(other)} · {inMinutes(other.capture.page?.minutes ?? 0)}
                  </Text>
                  <Text className="font-ui text-small text-accent">{sharedInWords(shared)}</Text>
                </Pressable>
              </Link>
            </View>
          ) : null;
        })}
      </View>
    </View>
  );
}
