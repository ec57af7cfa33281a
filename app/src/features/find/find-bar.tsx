import type { Scope } from '@dorvel/core/model';
import { useRouter } from 'expo-router';
import { memo, useDeferredValue, useMemo, useRef } from 'react';
import type { TextInput } from 'react-native';
import { keepSearch, removeSearch } from '@/device/store/changes';
import { usePins, useSearches } from '@/device/store/library';
import { pinTo, unpin } from '@/features/pins/pinning';
import { Chip } from '@/ui/chip';
import { ChipRow } from '@/ui/chip-row';
import { useKeys } from '@/ui/keys';
import { useNotices } from '@/ui/notices';
import { SearchField } from '@/ui/search-field';
import { hasFilter, tagFilter, useFindQuery } from './find-store';

const SCOPES: readonly { scope: Scope; label: string }[] = [
  { scope: 'articles', label: 'In articles' },
  { scope: 'writing', label: 'In my words' },
];

const FILTERS: readonly { filter: string; label: string }[] = [
  { filter: 'is:unread', label: 'Unread' },
  { filter: 'minutes:<10', label: 'Under 10 min' },
  { filter: 'saved:7d', label: 'Saved this week' },
  { filter: 'is:noted', label: 'With a note' },
  { filter: 'kind:picture', label: 'Pictures' },
];

/** Tags offered to narrow by, at most. */
const MAX_TAGS = 30;

/** Where the reader says what they look for. */
export function FindField() {
  const { written, write, settle } = useFindQuery();
  const field = useRef<TextInput>(null);
  useKeys(useMemo(() => ({ '/': () => field.current?.focus() }), []));
  return (
    <SearchField
      ref={field}
      name="Find"
      placeholder="A word or two that stuck"
      value={written}
      onChange={write}
      onSettle={settle}
    />
  );
}

/** What can be narrowed by, in one line: the query's own filters first, then tags of what was found, then the usual. */
export function NarrowBy({ tags }: { tags: readonly { tag: string; count: number }[] }) {
  // So many chips take longer to draw than a letter may wait: they follow when there is time.
  return <Narrowing tags={tags} written={useDeferredValue(useFindQuery(({ written }) => written))} />;
}

const Narrowing = memo(function Narrowing({
  tags,
  written,
}: {
  tags: readonly { tag: string; count: number }[];
  written: string;
}) {
  const scope = useFindQuery((state) => state.scope);
  const { toggle, lookIn } = useFindQuery.getState();
  const router = useRouter();
  const finding = written.trim() !== '';
  const offered = tags.slice(0, MAX_TAGS).map(({ tag, count }) => ({ tag, count, filter: tagFilter(tag) }));
  return (
    <ChipRow name="Narrow by">
      <KeptSearches written={written} />
      {offered.map(({ tag, count, filter }) => (
        <Chip
          key={tag}
          label={`${tag} ${count}`}
          name={`Tag ${tag}, ${count}`}
          on={hasFilter(written, filter)}
          onPress={() => toggle(filter)}
        />
      ))}
      {FILTERS.map(({ filter, label }) => (
        <Chip key={filter} label={label} on={hasFilter(written, filter)} onPress={() => toggle(filter)} />
      ))}
      {!finding && <Chip label="All tags" onPress={() => router.push('/tags')} />}
      {!finding && <Chip label="Highlights" onPress={() => router.push('/marks')} />}
      {(finding ? SCOPES : []).map((each) => (
        <Chip
          key={each.scope}
          label={each.label}
          on={scope === each.scope}
          onPress={() => lookIn(scope === each.scope ? 'all' : each.scope)}
        />
      ))}
    </ChipRow>
  );
});

/** The searches that the reader keeps, to begin with; and, once they look for something, to keep that too. */
function KeptSearches({ written }: { written: string }) {
  const scope = useFindQuery((state) => state.scope);
  const { write, lookIn } = useFindQuery.getState();
  const kept = useSearches() ?? [];
  const pins = usePins();
  const show = useNotices((state) => state.show);
  if (written.trim() === '')
    return kept.map((search) => (
      <Chip
        key={search.id}
        label={`“${search.choices.written.value}”`}
        name={`Find ${search.choices.written.value}, a search you keep`}
        onPress={() => {
          write(search.choices.written.value);
          lookIn(search.choices.scope.value);
        }}
      />
    ));
  const same = kept.find(({ choices }) => choices.written.value === written.trim() && choices.scope.value === scope);
  const leave = async () => {
    if (!same) return;
    await removeSearch(same, true);
    show({
      text: 'That search is not kept any more.',
      action: { label: 'Undo', press: () => void removeSearch(same, false) },
    });
  };
  return (
    <>
      <Chip
        label={same ? 'Kept' : 'Keep this search'}
        name={same ? 'Keep this search no longer' : 'Keep this search'}
        on={same !== undefined}
        onPress={() => void (same ? leave() : keepSearch(written.trim(), scope))}
      />
      {same && (
        <Chip
          label={pins.has(same.id) ? 'On Now' : 'Pin to Now'}
          name={pins.has(same.id) ? 'Take this search off Now' : 'Pin this search to Now'}
          on={pins.has(same.id)}
          onPress={() => (pins.has(same.id) ? unpin : pinTo)(same.id, 'search', 'The search')}
        />
      )}
    </>
  );
}
