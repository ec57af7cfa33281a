import type { CompiledPart } from '@dorvel/core/dossier';
import type { Item } from '@dorvel/core/model';
import { inMinutes, PURPOSE_WORDS, sourceOf, titleOf } from '@dorvel/core/wording';
import { Link } from 'expo-router';
import { Pressable, Text, View } from 'react-native';
import { atHighlight } from '@/article/at-highlight';
import { LeadPicture } from '@/features/items/lead-picture';
import { Markdown } from '@/features/notes/markdown';
import { namedList } from '@/ui/named-list';

/** What a thing in a dossier is called in a line. */
export function partTitle(part: CompiledPart): string {
  switch (part.kind) {
    case 'heading':
      return part.text;
    case 'item':
      return titleOf(part.item);
    case 'passage':
      return `“${part.words.slice(0, 70)}${part.words.length > 70 ? '…' : ''}”`;
    case 'picture':
      return part.caption || `A picture of “${titleOf(part.of)}”`;
    case 'note':
      return part.markdown.replace(/[#*_>`[\]]/g, '').slice(0, 70);
    case 'search':
      return `What “${part.text}” finds`;
    case 'gone':
      return 'Not in the library any more';
  }
}

/** One thing in a dossier as it is read. */
export function Part({ part }: { part: CompiledPart }) {
  switch (part.kind) {
    case 'heading':
      return (
        <Text
          role="heading"
          aria-level={part.depth + 1}
          className={`pt-[10px] font-read font-semibold text-ink ${part.depth === 1 ? 'text-head' : 'text-row'}`}
        >
          {part.text}
        </Text>
      );
    case 'item':
      return <ItemPart item={part.item} />;
    case 'passage':
      return (
        <View className="gap-[2px]">
          <p className="marked-words">
            <span className={`mark-sample mark-${part.mark}`}>{part.words}</span>
          </p>
          <Source of={part.of} at={part.highlightId} />
        </View>
      );
    case 'picture':
      return (
        <figure className="dossier-picture">
          <img src={`/api/pictures/${part.hash}.webp`} alt={part.caption} loading="lazy" />
          <figcaption>
            {part.caption && <Text className="font-ui text-base text-ink">{part.caption}</Text>}
            <Source of={part.of} at={null} />
          </figcaption>
        </figure>
      );
    case 'note':
      return (
        <div className={`purpose purpose-${part.purpose}`}>
          <span className="purpose-name">{PURPOSE_WORDS[part.purpose]}</span>
          <Markdown written={part.markdown} />
        </div>
      );
    case 'search':
      return (
        <View className="gap-[8px]">
          <Text className="font-ui text-small text-soft">
            {part.text === ''
              ? 'A search that looks for nothing yet'
              : `What “${part.text}” finds now: ${part.items.length}`}
          </Text>
          <View {...namedList(`What “${part.text}” finds`, part.items.length)} className="gap-[10px]">
            {part.items.map((item) => (
              <View key={item.id} role="listitem">
                <ItemPart item={item} />
              </View>
            ))}
          </View>
        </View>
      );
    case 'gone':
      return (
        <Text className="font-ui text-base text-soft">
          What stood here is not in the library any more. Who is shown this dossier does not see it.
        </Text>
      );
  }
}

function ItemPart({ item }: { item: Item }) {
  const { page } = item.capture;
  return (
    <View className="flex-row gap-[14px]">
      <View className="min-w-0 flex-1">
        <Link href={`/library/${item.id}`} asChild>
          <Pressable className="min-h-[44px] justify-center">
            <Text className="font-read text-row font-semibold text-ink">{titleOf(item)}</Text>
            <Text className="font-ui text-small text-soft">
              {sourceOf(item)}
              {page ? ` · ${inMinutes(page.minutes)}` : ''}
              {item.choices.stage.value === 'let-go' ? ' · let go' : ''}
            </Text>
          </Pressable>
        </Link>
        {page?.excerpt && (
          <Text numberOfLines={3} className="font-read text-base text-ink">
            {page.excerpt}
          </Text>
        )}
      </View>
      <div className="dossier-thumb">
        <LeadPicture item={item} />
      </div>
    </View>
  );
}

/** Where something is from, leading there. @param at the highlight at which it is opened */
function Source({ of, at }: { of: Item; at: string | null }) {
  return (
    <Link href={`/library/${of.id}${at === null ? '' : `?at=${atHighlight(at)}`}`} asChild>
      <Pressable className="min-h-[44px] justify-center">
        <Text className="font-ui text-small text-accent underline">
          {titleOf(of)}, {sourceOf(of)}
        </Text>
      </Pressable>
    </Link>
  );
}
