import { moveEntries } from '@dorvel/core/dossier';
import { NotePurpose } from '@dorvel/core/model';
import { PURPOSE_WORDS } from '@dorvel/core/wording';
import { useState } from 'react';
import { View } from 'react-native';
import { changeEntries, rerankEntries } from '@/device/store/dossier-changes';
import { useNotes } from '@/device/store/library';
import { useNoteSheet } from '@/features/notes/note-store';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Field } from '@/ui/field';
import { useNotices } from '@/ui/notices';
import { Setting, Switch } from '@/ui/setting';
import { Sheet } from '@/ui/sheet';
import { partTitle } from './parts';
import type { OpenDossier } from './use-dossier';

const PURPOSES = NotePurpose.options.map((value) => ({ value, label: PURPOSE_WORDS[value] }));
const TEXT_LABELS: Readonly<Record<string, string>> = {
  heading: 'Heading',
  search: 'What it looks for',
  picture: 'What it shows',
};

interface EntrySheetProps {
  open: OpenDossier;
  entryId: string;
  onAddAfter(at: number): void;
  onClose(): void;
}

/** What can be done with one thing in a dossier. */
export function EntrySheet({ open: { entries, compiled }, entryId, onAddAfter, onClose }: EntrySheetProps) {
  const at = entries.findIndex(({ id }) => id === entryId);
  const entry = entries[at];
  const part = compiled.parts[at];
  const notes = useNotes();
  const write = useNoteSheet((state) => state.write);
  const [text, setText] = useState(entry?.choices.text.value ?? '');
  if (!entry || !part) return null;
  const { nested, purpose } = entry.choices;
  const label = TEXT_LABELS[entry.part.kind];
  const keep = () => {
    onClose();
    if (label !== undefined && text.trim() !== entry.choices.text.value)
      void changeEntries([entryId], { text: text.trim().slice(0, 1000) });
  };
  const move = (to: number) => {
    onClose();
    void rerankEntries(moveEntries(entries, at, 1, to));
  };
  const remove = () => {
    onClose();
    void changeEntries([entryId], { removed: true });
    useNotices.getState().show({
      text: 'It is taken out of the dossier, and stays in your library.',
      action: { label: 'Undo', press: () => void changeEntries([entryId], { removed: false }) },
    });
  };
  const noteId = entry.part.kind === 'note' ? entry.part.noteId : null;
  const note = notes?.find(({ id }) => id === noteId);
  return (
    <Sheet title={partTitle(part)} onClose={keep}>
      <View className="gap-[12px]">
        {label !== undefined && <Field label={label} value={text} onChangeText={setText} onSubmitEditing={keep} />}
        {entry.part.kind === 'heading' && (
          <Switch
            label="Subsection"
            on={nested.value}
            onChange={(on) => void changeEntries([entryId], { nested: on })}
          />
        )}
        {noteId !== null && (
          <Setting label="What it is for">
            <Choice
              name="What it is for"
              options={PURPOSES}
              value={purpose.value}
              onChange={(value) => void changeEntries([entryId], { purpose: value })}
            />
          </Setting>
        )}
        {note && (
          <Button
            label="Write on it"
            kind="main"
            onPress={() => {
              onClose();
              write({ note });
            }}
          />
        )}
        <View className="flex-row flex-wrap gap-[10px]">
          <Button label="Further up" disabled={at === 0} onPress={() => move(at - 1)} />
          <Button label="Further down" disabled={at === entries.length - 1} onPress={() => move(at + 1)} />
          <Button label="Add something after it…" onPress={() => onAddAfter(at + 1)} />
        </View>
        <Button label="Take it out" kind="loss" onPress={remove} />
      </View>
    </Sheet>
  );
}
