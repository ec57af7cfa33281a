import type { Item } from '@dorvel/core/model';
import { PLAINLY_RELATED, PLAINLY_THE_SAME, type Related } from '@dorvel/core/nearness';
import { inMinutes, sharedInWords, sourceInLine, sourceOf, titleOf } from '@dorvel/core/wording';
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
  const retold = related.filter(({ resemblance }) => resemblance >= PLAINLY_THE_SAME);
  const others = related.filter((each) => !retold.includes(each));
  return (
    <>
      <AlsoToldBy items={retold.flatMap(({ id }) => byId.get(id) ?? [])} tab={tab} />
      {others.length > 0 && <Near related={others} tab={tab} />}
    </>
  );
}

const FRAME = 'mx-auto mt-[36px] w-full max-w-[560px] border-t border-line pt-[20px]';

/** Who else tells the same, word for word for the most part: one row. */
function AlsoToldBy({ items, tab }: { items: readonly Item[]; tab: Tab }) {
  if (items.length === 0) return null;
  return (
    <View role="region" aria-label="Also told by" className={`${FRAME} flex-row flex-wrap items-center gap-x-[14px]`}>
      <Text className="font-ui text-base text-soft">Also told by</Text>
      {items.map((item) => (
        <Link key={item.id} href={`/${tab}/${item.id}`} asChild>
          <Pressable className="min-h-[44px] justify-center" aria-label={`${sourceOf(item)}: ${titleOf(item)}`}>
            <Text className="font-ui text-base text-accent underline">{sourceOf(item)}</Text>
          </Pressable>
        </Link>
      ))}
    </View>
  );
}

function Near({ related, tab }: { related: readonly Related[]; tab: Tab }) {
  const byId = useItemsById();
  return (
    <View role="region" aria-label="Related" className={FRAME}>
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
                    {sourceInLine(other)} · {inMinutes(other.capture.page?.minutes ?? 0)}
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
