import { MAX_NOTE_LENGTH } from '@dorvel/core/model';
import { noteText } from '@dorvel/core/notes';
import type { NoteChanges } from '@dorvel/core/records';
import { useState } from 'react';
import { Text, View } from 'react-native';
import { changeNote, writeNote } from '@/device/store/changes';
import { Button } from '@/ui/button';
import { useNotices } from '@/ui/notices';
import { Setting, Switch } from '@/ui/setting';
import { Sheet } from '@/ui/sheet';
import { Markdown } from './markdown';
import { useNoteSheet, type Writing } from './note-store';
import { WritingField } from './writing-field';

/** A note being written, in Markdown; it can be something to do, with a day. Closing keeps what is written. */
export function NoteSheet({ writing }: { writing: Writing }) {
  const close = useNoteSheet((state) => state.close);
  const show = useNotices((state) => state.show);
  const before = writing.note?.choices;
  const written = writing.note ? noteText(writing.note) : '';
  const [text, setText] = useState(written);
  const [isTask, setTask] = useState((before?.task.value ?? 'none') !== 'none');
  const [dueOn, setDueOn] = useState(before?.dueOn.value ?? '');
  const [seen, setSeen] = useState(false);
  const keep = async () => {
    close();
    const task = isTask ? (before?.task.value === 'done' ? 'done' : 'open') : 'none';
    const set: NoteChanges = {
      text: text.trim().slice(0, MAX_NOTE_LENGTH),
      task,
      dueOn: isTask && dueOn ? dueOn : null,
    };
    if (writing.note && before) {
      const changed = {
        ...(set.text === written ? {} : { text: set.text }),
        ...(set.task === before.task.value ? {} : { task: set.task }),
        ...(set.dueOn === before.dueOn.value ? {} : { dueOn: set.dueOn }),
      };
      if (Object.keys(changed).length > 0) await changeNote(writing.note, changed);
    } else if (writing.note === null && set.text !== '') {
      await writeNote(writing, set);
      show({ text: 'Noted.' });
    }
  };
  const about = writing.note === null ? writing.about : null;
  return (
    <Sheet title={writing.note ? 'Note' : 'Write a note'} onClose={() => void keep()}>
      <View className="gap-[14px]">
        {about && (
          <Text numberOfLines={2} className="font-ui text-small text-soft">
            On: {about}
          </Text>
        )}
        {seen ? (
          <Markdown written={text} />
        ) : (
          <WritingField label="Your words" value={text} onChangeText={setText} autoFocus />
        )}
        <Switch label="It is something to do" on={isTask} onChange={setTask} />
        {isTask && (
          <Setting label="By this day, if there is one">
            <label className="day-field">
              <span className="visually-hidden">By this day</span>
              <input type="date" value={dueOn} onChange={(event) => setDueOn(event.target.value)} />
            </label>
          </Setting>
        )}
        <View className="flex-row flex-wrap gap-[8px]">
          <Button label="Keep the note" kind="main" onPress={() => void keep()} />
          <Button label={seen ? 'Write on' : 'See it set'} onPress={() => setSeen(!seen)} />
        </View>
      </View>
    </Sheet>
  );
}
