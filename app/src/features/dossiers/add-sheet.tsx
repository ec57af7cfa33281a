import { type Item, NotePurpose } from '@dorvel/core/model';
import { PURPOSE_WORDS, sourceOf, titleOf } from '@dorvel/core/wording';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { type NewEntry, putInDossier, writeInDossier } from '@/device/store/dossier-changes';
import { useItemsById } from '@/device/store/items';
import { useHighlights } from '@/device/store/library';
import { useFind } from '@/device/workers/find/use-find';
import { WritingField } from '@/features/notes/writing-field';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Field } from '@/ui/field';
import { namedList } from '@/ui/named-list';
import { useNotices } from '@/ui/notices';
import { Setting, Switch } from '@/ui/setting';
import { Sheet } from '@/ui/sheet';
import { useTextPictures } from './use-text-pictures';

interface AddProps {
  dossierId: string;
  /** What is in it already: pictures are chosen from these. */
  items: readonly Item[];
  /** How many stand before what is added. */
  at: number;
  onClose(): void;
}

type What = 'item' | 'note' | 'heading' | 'passage' | 'picture' | 'search';
const WHATS: readonly { value: What; label: string }[] = [
  { value: 'item', label: 'From the library' },
  { value: 'note', label: 'My words' },
  { value: 'heading', label: 'A heading' },
  { value: 'passage', label: 'A passage' },
  { value: 'picture', label: 'A picture' },
  { value: 'search', label: 'A search' },
];
const PURPOSES = NotePurpose.options.map((value) => ({ value, label: PURPOSE_WORDS[value] }));
const SHOWN = 12;

/** Adds something to a dossier at a place. */
export function AddSheet(props: AddProps) {
  const [what, setWhat] = useState<What>('item');
  return (
    <Sheet title="Add to the dossier" onClose={props.onClose}>
      <View className="gap-[14px]">
        <Choice name="What" options={WHATS} value={what} onChange={(value) => setWhat(value)} oneLine />
        {what === 'item' && <AddItem {...props} />}
        {what === 'note' && <AddNote {...props} />}
        {what === 'heading' && <AddHeading {...props} />}
        {what === 'passage' && <AddPassage {...props} />}
        {what === 'picture' && <AddPicture {...props} />}
        {what === 'search' && <AddSearch {...props} />}
      </View>
    </Sheet>
  );
}

/** Puts one thing in, and says so; the sheet stays, so that several can be added one after the other. */
function useAdd({ dossierId, at }: AddProps) {
  const [added, setAdded] = useState(0);
  const show = useNotices((state) => state.show);
  return (thing: NewEntry, says: string) => {
    setAdded(added + 1);
    void putInDossier(dossierId, [thing], at + added).then(() => show({ text: says }));
  };
}

function AddItem(props: AddProps) {
  const [written, setWritten] = useState('');
  const byId = useItemsById();
  const { shown } = useFind(written, 'all', true, 0);
  const add = useAdd(props);
  const found = shown?.answer.ids.slice(0, SHOWN).flatMap((id) => byId.get(id) ?? []) ?? [];
  return (
    <View className="gap-[10px]">
      <Field label="Find it by its words" value={written} onChangeText={setWritten} autoFocus inputMode="search" />
      {written.trim() !== '' && shown && found.length === 0 && (
        <Text className="font-ui text-base text-soft">No item of yours has that.</Text>
      )}
      <View {...namedList('Found', found.length)} className="gap-[8px]">
        {found.map((item) => (
          <View key={item.id} role="listitem">
            <Button
              label={`${titleOf(item)} · ${sourceOf(item)}`}
              onPress={() => add({ kind: 'item', itemId: item.id }, `“${titleOf(item)}” is in.`)}
            />
          </View>
        ))}
      </View>
    </View>
  );
}

function AddNote({ dossierId, at, onClose }: AddProps) {
  const [text, setText] = useState('');
  const [purpose, setPurpose] = useState<NotePurpose>('bridge');
  const keep = () => {
    onClose();
    void writeInDossier(dossierId, text.trim(), purpose, at);
  };
  return (
    <View className="gap-[14px]">
      <Setting label="What it is for">
        <Choice name="What it is for" options={PURPOSES} value={purpose} onChange={(value) => setPurpose(value)} />
      </Setting>
      <WritingField label="Your words" value={text} onChangeText={setText} autoFocus />
      <Button label="Put it in" kind="main" disabled={text.trim() === ''} onPress={keep} />
    </View>
  );
}

function AddHeading({ dossierId, at, onClose }: AddProps) {
  const [text, setText] = useState('');
  const [nested, setNested] = useState(false);
  const keep = () => {
    if (text.trim() === '') return;
    onClose();
    void putInDossier(dossierId, [{ kind: 'heading', text: text.trim(), nested }], at);
  };
  return (
    <View className="gap-[14px]">
      <Field label="Heading" value={text} onChangeText={setText} autoFocus onSubmitEditing={keep} />
      <Switch label="Subsection" on={nested} onChange={setNested} />
      <Button label="Put it in" kind="main" disabled={text.trim() === ''} onPress={keep} />
    </View>
  );
}

function AddPassage(props: AddProps) {
  const highlights = useHighlights() ?? [];
  const byId = useItemsById();
  const [written, setWritten] = useState('');
  const add = useAdd(props);
  const words = written.trim().toLocaleLowerCase();
  const shown = highlights
    .filter(({ choices }) => choices.passage.value.exact.toLocaleLowerCase().includes(words))
    .sort((a, b) => b.madeAt - a.madeAt)
    .slice(0, SHOWN);
  return (
    <View className="gap-[10px]">
      <Field label="With these words" value={written} onChangeText={setWritten} autoFocus inputMode="search" />
      {shown.length === 0 && (
        <Text className="font-ui text-base text-soft">
          Nothing of that kind is marked. Mark a passage where you read.
        </Text>
      )}
      <View {...namedList('Highlights', shown.length)} className="gap-[8px]">
        {shown.map(({ id, itemId, choices }) => {
          const item = byId.get(itemId);
          return (
            <View key={id} role="listitem">
              <Button
                label={`“${choices.passage.value.exact.slice(0, 120)}”${item ? ` · ${titleOf(item)}` : ''}`}
                onPress={() => add({ kind: 'passage', itemId, highlightId: id }, 'The passage is in.')}
              />
            </View>
          );
        })}
      </View>
    </View>
  );
}

function AddPicture(props: AddProps) {
  const pictures = useTextPictures(props.items);
  const add = useAdd(props);
  if (pictures.length === 0)
    return (
      <Text className="font-ui text-base text-soft">
        Nothing in the dossier has a picture on this device. In the reader, a picture that is opened can be put in, too.
      </Text>
    );
  return (
    <div role="group" aria-label="Pictures" className="picture-choice">
      {pictures.map(({ hash, alt, itemId }, at) => (
        <button
          key={`${itemId} ${hash}`}
          type="button"
          aria-label={alt || `Picture ${at + 1}`}
          onClick={() => add({ kind: 'picture', itemId, hash, text: alt }, 'The picture is in.')}
        >
          <img src={`/api/pictures/${hash}.webp`} alt="" loading="lazy" />
        </button>
      ))}
    </div>
  );
}

function AddSearch({ dossierId, at, onClose }: AddProps) {
  const [text, setText] = useState('');
  const keep = () => {
    if (text.trim() === '') return;
    onClose();
    void putInDossier(dossierId, [{ kind: 'search', text: text.trim() }], at);
  };
  return (
    <View className="gap-[14px]">
      <Text className="font-ui text-base text-soft">
        A search stays live: it shows what it finds on the day on which the dossier is looked at.
      </Text>
      <Field
        label="What it looks for"
        value={text}
        onChangeText={setText}
        autoFocus
        onSubmitEditing={keep}
        inputMode="search"
      />
      <Button label="Put it in" kind="main" disabled={text.trim() === ''} onPress={keep} />
    </View>
  );
}
