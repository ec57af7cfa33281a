import { isOnWeb } from '@dorvel/core/address';
import { entriesOfItem } from '@dorvel/core/dossier';
import { type Highlight, type Item, type Note, type Stage, tagsOf } from '@dorvel/core/model';
import { liveText, ownNote } from '@dorvel/core/notes';
import { readingState } from '@dorvel/core/queue';
import { addDays } from '@dorvel/core/reading';
import { captureWords, dayInWords, lengthInWords, savedWords, sourceInLine, titleOf } from '@dorvel/core/wording';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { Linking, Text, View } from 'react-native';
import { choose, fetchAgain, writeOwnNote } from '@/device/store/changes';
import { dayOf } from '@/device/store/day';
import { useHighlightsOf, useItem, useNotesOf, useOwnNote, usePins } from '@/device/store/library';
import { GiveTextSheet } from '@/features/add/give-text-sheet';
import { PutInButtons } from '@/features/collecting/put-in-buttons';
import { asEntries, putInNew } from '@/features/collecting/put-in-store';
import { pinTo, unpin } from '@/features/pins/pinning';
import { HowMuchChoice, OF_A_PAGE } from '@/features/settings/how-much-choice';
import { ItemTags } from '@/features/tags/item-tags';
import { ItemPlace } from '@/features/trail/place';
import { Trail } from '@/features/trail/trail';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { useNotices } from '@/ui/notices';
import { SectionHeading } from '@/ui/section-heading';
import { Sheet } from '@/ui/sheet';
import { moves } from './moves';

interface ItemSheetProps {
  itemId: string;
  onClose(): void;
  /** Called after the item has gone to another stage. */
  onMoved?(stage: Stage): void;
  /** What can be done with the text itself, where it is open. */
  text?: { onCopies(): void; onEchoes(): void; onFind(): void; onTidy(): void };
}

const NO_HIGHLIGHTS: readonly Highlight[] = [];

/** What of it takes more than a press. */
type Doing = 'renaming' | 'promising' | 'choosing' | 'giving' | 'tagging' | 'noting';

/** What can be done with an item, from a list or from the reader. */
export function ItemSheet({ itemId, onClose, onMoved, text }: ItemSheetProps) {
  const item = useItem(itemId);
  const { move, toTop, toEnd } = moves;
  const [doing, setDoing] = useState<Doing | null>(null);
  const router = useRouter();
  const highlights = useHighlightsOf(itemId) ?? NO_HIGHLIGHTS;
  const marked = highlights.length;
  const own = useOwnNote(itemId);
  const notes = useNotesOf(itemId);
  const noted = [...notes.keys()].filter((id) => id !== itemId).length;
  const isPinned = usePins().has(itemId);
  if (!item) return null;
  if (doing === 'giving') return <GiveTextSheet item={item} onClose={onClose} />;
  const stage = item.choices.stage.value;
  const go = (to: Stage) => {
    onClose();
    void move(item, to);
    onMoved?.(to);
  };
  return (
    <Sheet title={titleOf(item)} onClose={onClose}>
      <Text className="pb-[4px] font-ui text-small text-soft">
        {sourceInLine(item)} · {savedWords(item)} · {lengthInWords(item)}
      </Text>
      <Text className="pb-[14px] font-ui text-small text-soft">{captureWords(item.capture)}</Text>
      {doing === 'renaming' ? (
        <Rename item={item} onDone={() => setDoing(null)} />
      ) : doing === 'promising' ? (
        <ComeBack item={item} onDone={onClose} />
      ) : doing === 'choosing' ? (
        <KeepOtherwise item={item} onDone={onClose} />
      ) : doing === 'tagging' ? (
        <ItemTags item={item} />
      ) : doing === 'noting' ? (
        <WriteNote itemId={item.id} note={own ?? null} onDone={() => setDoing(null)} />
      ) : (
        <View className="gap-[10px]">
          {stage !== 'queue' && (
            <Button
              label={stage === 'let-go' ? 'Bring back to Queue' : 'Queue'}
              kind="main"
              onPress={() => go('queue')}
            />
          )}
          {stage === 'queue' && (
            <View className="flex-row flex-wrap gap-[10px]">
              <Half
                label="Next in the Queue"
                onPress={() => {
                  onClose();
                  void toTop(item);
                }}
              />
              <Half
                label="Last in the Queue"
                onPress={() => {
                  onClose();
                  void toEnd(item);
                }}
              />
            </View>
          )}
          {readingState(item) !== 'finished' && <Button label="Finished" onPress={() => go('finished')} />}
          {stage !== 'kept' && <Button label="Keep for reference" onPress={() => go('kept')} />}
          <View className="flex-row flex-wrap gap-[10px]">
            <Half label={comeBackLabel(item)} onPress={() => setDoing('promising')} />
            <Half
              label={isPinned ? 'Take off Now' : 'Pin to Now'}
              onPress={() => {
                onClose();
                (isPinned ? unpin : pinTo)(item.id, 'item', `“${titleOf(item)}”`);
              }}
            />
          </View>
          <View className="flex-row flex-wrap gap-[10px]">
            <Half label={tagsLabel(item)} onPress={() => setDoing('tagging')} />
            <Half label={liveText(own) === '' ? 'Write a note' : 'Your note'} onPress={() => setDoing('noting')} />
            {noted > 0 && (
              <Half
                label={`Notes (${noted})`}
                onPress={() => {
                  onClose();
                  router.push(`/notes?item=${item.id}`);
                }}
              />
            )}
            {marked > 0 && (
              <Half
                label={`Highlights (${marked})`}
                onPress={() => {
                  onClose();
                  router.push(`/marks?item=${item.id}`);
                }}
              />
            )}
          </View>
          <PutInButtons things={asEntries([item.id])} onPress={onClose} />
          {(marked > 0 || notes.size > 0) && (
            <Button
              label="Hand on what I made of it…"
              onPress={() => {
                onClose();
                const entries = entriesOfItem(item.id, highlights, [...notes.values()]);
                void putInNew(titleOf(item), entries).then((id) => router.push(`/hand-on?dossier=${id}`));
              }}
            />
          )}
          <SectionHeading>The text</SectionHeading>
          <View className="flex-row flex-wrap gap-[10px]">
            {text && <Half label="Find in the text" onPress={text.onFind} />}
            {text && <Half label="Echoes" onPress={text.onEchoes} />}
            {text && <Half label="Tidy the text" onPress={text.onTidy} />}
            {item.choices.known.value === 'disputed' && (
              <Half
                label="Show what I know in it"
                onPress={() => {
                  onClose();
                  void choose(item.id, { known: 'told' });
                }}
              />
            )}
            {text && item.capture.copies.length > 0 && (
              <Half label={`Copies (${item.capture.copies.length})`} onPress={text.onCopies} />
            )}
            <Half label="Change the title" onPress={() => setDoing('renaming')} />
            {isOnWeb(item.address) && <Half label="How much is kept" onPress={() => setDoing('choosing')} />}
            <Half label="Paste the text" onPress={() => setDoing('giving')} />
            {isOnWeb(item.address) && (
              <Half
                label="Fetch the page again"
                onPress={() => {
                  onClose();
                  void fetchAgain(item.id);
                }}
              />
            )}
          </View>
          <SectionHeading>Trail</SectionHeading>
          <Trail item={item} />
          <ItemPlace item={item} onLeave={onClose} />
          {isOnWeb(item.address) && (
            <Button label="Open the page itself" onPress={() => void Linking.openURL(item.address)} />
          )}
          {stage !== 'let-go' && <Button label="Let go" kind="loss" onPress={() => go('let-go')} />}
        </View>
      )}
    </Sheet>
  );
}

function comeBackLabel(item: Item): string {
  const day = item.choices.comeBackOn.value;
  return day === null ? 'Come back on a day…' : `Comes back on ${dayInWords(day)}…`;
}

/** The day on which an item is to surface again. */
function ComeBack({ item, onDone }: { item: Item; onDone(): void }) {
  const { comeBack } = moves;
  const today = dayOf(Date.now());
  const [day, setDay] = useState(addDays(today, 3));
  const promise = (to: string | null) => {
    onDone();
    void comeBack(item, to);
  };
  return (
    <View className="gap-[10px]">
      <Button label="Tomorrow" onPress={() => promise(addDays(today, 1))} />
      <Button label="In a week" onPress={() => promise(addDays(today, 7))} />
      <Button label="In a month" onPress={() => promise(addDays(today, 30))} />
      <label className="day-field">
        <Text className="font-ui text-base font-semibold text-ink">On this day</Text>
        <input type="date" min={addDays(today, 1)} value={day} onChange={(event) => setDay(event.target.value)} />
      </label>
      <Button label="Come back on this day" kind="main" disabled={day <= today} onPress={() => promise(day)} />
      {item.choices.comeBackOn.value !== null && <Button label="Remove the day" onPress={() => promise(null)} />}
    </View>
  );
}

/** One of two buttons side by side. */
function Half(props: { label: string; onPress(): void }) {
  return (
    <View className="min-w-[150px] flex-1 basis-[45%]">
      <Button {...props} />
    </View>
  );
}

/** Another choice of how much is kept takes effect by fetching the page again; the copies there are stay. */
function KeepOtherwise({ item, onDone }: { item: Item; onDone(): void }) {
  const [howMuch, setHowMuch] = useState(item.choices.howMuch.value);
  return (
    <View className="gap-[14px]">
      <HowMuchChoice value={howMuch} onChange={setHowMuch} of={OF_A_PAGE} />
      <Text className="font-ui text-small text-soft">
        The page is fetched again for it. The copies that there are stay.
      </Text>
      <Button
        label="Keep this much"
        kind="main"
        onPress={() => {
          onDone();
          void choose(item.id, { howMuch }).then(() => fetchAgain(item.id));
        }}
      />
    </View>
  );
}

function tagsLabel(item: Item): string {
  const count = tagsOf(item).length;
  return count === 0 ? 'Tags…' : `Tags (${count})…`;
}

function WriteNote({ itemId, note, onDone }: { itemId: string; note: Note | null; onDone(): void }) {
  // As it was when the reader began: what comes from elsewhere meanwhile is joined with what they write.
  const [before] = useState(note);
  const text = liveText(before);
  const [written, setWritten] = useState(text);
  const show = useNotices((state) => state.show);
  const save = async () => {
    onDone();
    const now = written.trim();
    if (now === text) return;
    const subject = ownNote.ofItem(itemId);
    const kept = await writeOwnNote(subject, before, now);
    show({
      text: now === '' ? 'The note is gone.' : 'Noted.',
      action: { label: 'Undo', press: () => void writeOwnNote(subject, kept, text) },
    });
  };
  return (
    <View className="gap-[12px]">
      <Field label="Your note" value={written} onChangeText={setWritten} autoFocus multiline />
      <Button label="Keep the note" kind="main" onPress={() => void save()} />
    </View>
  );
}

function Rename({ item, onDone }: { item: Item; onDone(): void }) {
  const [title, setTitle] = useState(titleOf(item));
  const save = () => {
    const own = title.trim().slice(0, 500);
    void choose(item.id, { title: own === '' || own === item.capture.page?.title ? null : own });
    onDone();
  };
  return (
    <View className="gap-[12px]">
      <Field label="Title" value={title} onChangeText={setTitle} autoFocus onSubmitEditing={save} />
      <Text className="font-ui text-small text-soft">Leave it empty to go back to the page’s own title.</Text>
      <Button label="Save the title" kind="main" onPress={save} />
    </View>
  );
}
