import { readAddress } from '@dorvel/core/address';
import type { GivenText } from '@dorvel/core/model';
import { alreadySavedWords } from '@dorvel/core/wording';
import { useRouter } from 'expo-router';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Text, View } from 'react-native';
import { choose, saveAddress } from '@/device/store/changes';
import { useNoteSheet } from '@/features/notes/note-store';
import { HowMuchChoice, OF_A_PAGE } from '@/features/settings/how-much-choice';
import { useSavingSettings } from '@/features/settings/saving-settings-store';
import { keepWhere } from '@/features/settings/where-saved';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { useNotices } from '@/ui/notices';
import { Sheet } from '@/ui/sheet';
import { useAddSheet } from './add-store';
import { ALL_FILES, saveListOfText } from './files';
import { GivenTextField } from './given-text';
import { OfFile } from './of-file';
import { OfPictures, PictureInputs } from './of-pictures';
import { isPicture } from './pictures';
import { SaveMany } from './save-many';
import { useFileReading } from './use-file-reading';

/** Paste or type an address; one press, and it is in the Inbox. */
export function AddSheet() {
  const close = useAddSheet((state) => state.close);
  const show = useNotices((state) => state.show);
  const write = useNoteSheet((state) => state.write);
  const router = useRouter();
  const [input, setInput] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const usual = useSavingSettings((state) => state.howMuch);
  const [howMuch, setHowMuch] = useState(usual);
  const [given, setGiven] = useState<GivenText | null>(null);
  const wantsPart = howMuch === 'selected-part';
  const dropped = useAddSheet((state) => state.files);
  const reading = useFileReading();
  const ofFiles = reading.list;
  const ofText = useMemo(() => saveListOfText(input), [input]);
  const many = ofFiles ?? ofText;
  const [pictures, setPictures] = useState<readonly File[]>([]);
  const readFiles = reading.files;
  const takeFiles = useCallback(
    (files: readonly File[]) => {
      // Pictures alone are put in order; among other files, each is taken by itself.
      if (files.length > 0 && files.every(isPicture)) setPictures(files);
      else readFiles(files);
    },
    [readFiles],
  );
  useEffect(() => takeFiles(dropped), [dropped, takeFiles]);
  if (reading.name !== null)
    return (
      <Sheet title="Save what is in files" onClose={close}>
        <View className="items-start gap-[14px] py-[6px]">
          <Text role="status" className="font-ui text-base text-ink">
            {`Reading ${reading.name}…`}
          </Text>
          <Button label="Stop" onPress={reading.end} />
        </View>
      </Sheet>
    );

  const isMany = ofFiles !== null || many.requests.length + many.faults.length > 1;

  const save = async () => {
    const read = readAddress(input);
    if (!read.ok) {
      setFault(read.says);
      return;
    }
    if (wantsPart && !given) {
      setFault('Paste the part that is to be kept, or choose how much else.');
      return;
    }
    const outcome = await saveAddress(read, howMuch, wantsPart && given ? given : undefined);
    close();
    if (outcome.kind === 'already-saved') {
      show({ text: alreadySavedWords(outcome.item) });
      return;
    }
    show({
      text: 'Saved to Inbox.',
      action: { label: 'Undo', press: () => void choose(outcome.itemId, { stage: 'let-go' }) },
    });
    void keepWhere([outcome.itemId]);
    router.navigate('/inbox');
  };
  if (pictures.length > 0)
    return (
      <Sheet title={pictures.length === 1 ? 'Save a picture' : 'Save pictures'} onClose={close}>
        <OfPictures files={pictures} onChange={setPictures} onDone={close} />
      </Sheet>
    );
  return (
    <Sheet title="Save an address" onClose={close}>
      <View className="gap-[16px] pt-[6px]">
        {ofFiles === null && (
          <Field
            label="Address of a page"
            value={input}
            onChangeText={(text) => {
              setInput(text);
              reading.forget();
              setFault(null);
            }}
            fault={fault}
            inputMode="url"
            autoFocus
            onSubmitEditing={() => {
              if (!isMany) void save();
            }}
          />
        )}
        <HowMuchChoice value={howMuch} onChange={setHowMuch} of={isMany ? OF_A_PAGE : undefined} />
        {isMany ? (
          <>
            {ofFiles && <OfFile list={ofFiles} onTake={reading.again} />}
            <SaveMany
              reading={many}
              isChanging={reading.isChanging}
              howMuch={wantsPart ? usual : howMuch}
              onDone={close}
            />
          </>
        ) : (
          <>
            {wantsPart && <GivenTextField onGiven={setGiven} />}
            <Text className="font-ui text-small text-soft">
              It is in the Inbox at once; its text follows when there is a connection. A text with several addresses in
              it saves them all.
            </Text>
            <Button label="Save" kind="main" onPress={() => void save()} />
            <Button
              label="Write a note instead"
              onPress={() => {
                close();
                write({ note: null, itemId: null, on: { kind: 'nothing' }, about: null });
              }}
            />
            <label className="file-button">
              Or choose files
              <input
                type="file"
                multiple
                accept={ALL_FILES}
                onChange={(event) => takeFiles([...(event.target.files ?? [])])}
              />
            </label>
            <PictureInputs onFiles={(files) => setPictures([...(files ?? [])].filter(isPicture))} />
          </>
        )}
      </View>
    </Sheet>
  );
}
