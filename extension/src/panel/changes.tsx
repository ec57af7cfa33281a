import {
  HOW_MUCH_WORDS,
  type HowMuch,
  type Item,
  type KnownPage,
  type Stage,
  tagKey,
  TagName,
  tagsOf,
} from '@dorvel/core/model';
import { liveText } from '@dorvel/core/notes';
import { inputWords, titleOf } from '@dorvel/core/wording';
import { useState } from 'react';
import { ask } from '../messages';
import { Chip, Choice, Field, Part } from '../ui/controls';

interface ChangesProps {
  item: Item;
  known: KnownPage;
  /** The tab that shows it, to take it from again; null when it is not open. */
  tabId: number | null;
  again(): void;
}

const PLACES: readonly { value: Stage; label: string }[] = [
  { value: 'inbox', label: 'Inbox' },
  { value: 'queue', label: 'Queue' },
  { value: 'kept', label: 'Kept' },
  { value: 'finished', label: 'Finished' },
];

/** What a reader may want to change in the same motion; nothing of it has to be. */
export function Changes({ item, known, tabId, again }: ChangesProps) {
  const howMuch = item.choices.howMuch.value;
  const stage = item.choices.stage.value;
  const choose = async (set: Parameters<typeof setOf>[0]) => {
    await ask('choose', { itemId: item.id, set: setOf(set) });
    again();
  };
  return (
    <>
      <div className="flex gap-[10px]">
        <Choice
          label="Goes to"
          narrow
          value={stage}
          options={PLACES.filter(({ value }) => value !== 'finished' || stage === 'finished')}
          onChange={(to) => void choose(to === 'queue' ? { stage: to, queueRank: known.queueEnd } : { stage: to })}
        />
        {tabId !== null && howMuch !== 'selected-part' && howMuch !== 'picture' && (
          <Choice
            label="How much"
            value={howMuch}
            options={(['words-and-pictures', 'words-only', 'whole-page', 'address-only'] as HowMuch[]).map((value) => ({
              value,
              label: HOW_MUCH_WORDS[value],
            }))}
            onChange={(to) => void ask('howMuch', { itemId: item.id, tabId, howMuch: to }).then(again)}
          />
        )}
      </div>
      <Tags item={item} known={known} again={again} />
      <Words item={item} known={known} again={again} choose={choose} />
    </>
  );
}

const setOf = (set: { stage?: Stage; queueRank?: number; title?: string | null }) => set;

function Tags({ item, known, again }: Pick<ChangesProps, 'item' | 'known' | 'again'>) {
  const own = tagsOf(item);
  const keys = new Set(own.map(tagKey));
  const suggested = known.suggestedTags.filter(({ tag }) => !keys.has(tagKey(tag)));
  const offered = known.lastTags.filter(
    (tag) => !keys.has(tagKey(tag)) && !suggested.some((each) => tagKey(each.tag) === tagKey(tag)),
  );
  const put = (name: string, on: boolean) => putTag(item, name, on).then(again);
  if (own.length + offered.length + suggested.length === 0) return null;
  return (
    <Part heading="Tags">
      {own.length + offered.length > 0 && (
        <div className="flex flex-wrap gap-[8px]">
          {own.map((name) => (
            <Chip key={name} label={name} name={`Take off ${name}`} on onPress={() => void put(name, false)} />
          ))}
          {offered.map((name) => (
            <Chip key={name} label={name} name={`Put on ${name}`} on={false} onPress={() => void put(name, true)} />
          ))}
        </div>
      )}
      {suggested.map(({ tag, reason }) => (
        <div key={tag} className="flex items-center gap-[10px]">
          <Chip label={tag} name={`Put on ${tag}, suggested`} on={false} onPress={() => void put(tag, true)} />
          <span className="flex-1 font-ui text-small text-accent">{reason}</span>
        </div>
      ))}
    </Part>
  );
}

const putTag = (item: Item, name: string, on: boolean) =>
  ask('tag', { itemId: item.id, set: { [tagKey(name)]: on ? name : null } });

function Words({
  item,
  known,
  again,
  choose,
}: Pick<ChangesProps, 'item' | 'known' | 'again'> & {
  choose(set: { title?: string | null }): Promise<void>;
}) {
  const [title, setTitle] = useState<string | null>(null);
  const [before, setBefore] = useState(known.note);
  const [note, setNote] = useState(liveText(before));
  const [written, setWritten] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const stands = titleOf(item);
  const endTag = () => {
    if (written.trim() === '') return;
    const parsed = TagName.safeParse(written);
    if (!parsed.success) {
      setFault(inputWords(parsed.error));
      return;
    }
    setFault(null);
    setWritten('');
    // A tag that is known already keeps the spelling that the reader gave it first.
    const spelled = known.lastTags.find((tag) => tagKey(tag) === tagKey(parsed.data)) ?? parsed.data;
    void putTag(item, spelled, true).then(again);
  };
  return (
    <details>
      <summary className="flex min-h-[44px] cursor-pointer items-center font-ui text-base text-accent">
        Another tag, title, note
      </summary>
      <div className="flex flex-col gap-[10px]">
        <Field label="Another tag" value={written} onChange={setWritten} onEnd={endTag} fault={fault} />
        <Field
          label="Title"
          value={title ?? stands}
          onChange={setTitle}
          onEnd={() => {
            const own = title?.trim().slice(0, 500);
            if (own !== undefined && own !== stands) void choose({ title: own === '' ? null : own });
          }}
        />
        <Field
          label="Note"
          long
          value={note}
          onChange={setNote}
          onEnd={() => {
            if (note !== liveText(before)) void ask('note', { itemId: item.id, before, text: note }).then(setBefore);
          }}
        />
      </div>
    </details>
  );
}
