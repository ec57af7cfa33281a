import { chosenItems } from '@dorvel/core/dossier';
import { DossierChoices } from '@dorvel/core/model';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { Text, View } from 'react-native';
import { changeDossier } from '@/device/store/dossier-changes';
import { WritingField } from '@/features/notes/writing-field';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { useNotices } from '@/ui/notices';
import { Sheet } from '@/ui/sheet';
import type { OpenDossier } from './use-dossier';
import { useTextPictures } from './use-text-pictures';

/** More of them could not be told apart. */
const MOST = 40;

/** What stands around a dossier: its title, the words before and after, the picture in front. Closing keeps it. */
export function CoverSheet({ open: { dossier, compiled }, onClose }: { open: OpenDossier; onClose(): void }) {
  // What another device says while this is open is not written over by what stood here before.
  const [began] = useState(dossier);
  const [words] = useState({ introduction: compiled.introduction, closing: compiled.closing });
  const { choices } = began;
  const [title, setTitle] = useState(choices.title.value);
  const [introduction, setIntroduction] = useState(words.introduction);
  const [closing, setClosing] = useState(words.closing);
  const [lead, setLead] = useState(choices.lead.value);
  const router = useRouter();
  const items = useMemo(() => chosenItems(compiled), [compiled]);
  const own = compiled.parts.flatMap((part) => (part.kind === 'picture' ? [part.hash] : []));
  const inTexts = useTextPictures(items).map(({ hash }) => hash);
  const pictures = [...new Set([...(lead === null ? [] : [lead]), ...own, ...inTexts])].slice(0, MOST);
  const named = DossierChoices.shape.title.safeParse(title);
  const keep = () => {
    onClose();
    const before = { title: choices.title.value, lead: choices.lead.value, ...words };
    const now = { title: named.data ?? before.title, lead, introduction, closing };
    const changed = Object.fromEntries(
      Object.entries(now).filter(([field, value]) => before[field as keyof typeof now] !== value),
    );
    if (Object.keys(changed).length > 0) void changeDossier(began.id, changed, {}, began);
  };
  const remove = () => {
    onClose();
    void changeDossier(dossier.id, { removed: true });
    useNotices.getState().show({
      text: `“${choices.title.value}” is let go. What is in it stays in your library.`,
      action: { label: 'Undo', press: () => void changeDossier(dossier.id, { removed: false }) },
    });
    router.replace('/dossiers');
  };
  return (
    <Sheet title="Cover" onClose={keep}>
      <View className="gap-[16px]">
        <Field
          label="Title"
          value={title}
          onChangeText={setTitle}
          fault={named.success ? null : 'It needs a title, of 200 characters at most.'}
        />
        <WritingField label="Before the rest" value={introduction} onChangeText={setIntroduction} />
        <WritingField label="After the rest" value={closing} onChangeText={setClosing} />
        {pictures.length > 0 && (
          <View className="gap-[8px]">
            <Text className="font-ui text-base font-semibold text-ink">Cover picture</Text>
            <div role="radiogroup" aria-label="Cover picture" className="picture-choice">
              <button type="button" role="radio" aria-checked={lead === null} onClick={() => setLead(null)}>
                None
              </button>
              {pictures.map((hash, at) => (
                <button
                  key={hash}
                  type="button"
                  role="radio"
                  aria-checked={lead === hash}
                  aria-label={`Picture ${at + 1}`}
                  onClick={() => setLead(hash)}
                >
                  <img src={`/api/pictures/${hash}.webp`} alt="" loading="lazy" />
                </button>
              ))}
            </div>
          </View>
        )}
        <Button label="Keep the cover" kind="main" disabled={!named.success} onPress={keep} />
        <Button label="Let the dossier go" kind="loss" onPress={remove} />
      </View>
    </Sheet>
  );
}
