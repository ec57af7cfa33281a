import { titleOf } from '@dorvel/core/wording';
import { useEffect, useMemo, useState } from 'react';
import { Text, View } from 'react-native';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { namedList } from '@/ui/named-list';
import { Switch } from '@/ui/setting';
import type { SaveList } from './files';
import { isPicture, NotAPicture, PICTURE_FILES, pictureRequest } from './pictures';
import { SaveMany } from './save-many';
import { takenAt } from './taken-at';
import { useSamePicture } from './use-same-picture';

const HOW = [
  { value: 'one', label: 'As one item' },
  { value: 'each', label: 'Each by itself' },
] as const;
type How = (typeof HOW)[number]['value'];

interface OfPicturesProps {
  files: readonly File[];
  onChange(files: readonly File[]): void;
  onDone(): void;
}

/** Pictures that are to be saved: seen, put in order, more of them photographed, and then saved, offline too. */
export function OfPictures({ files, onChange, onDone }: OfPicturesProps) {
  const [how, setHow] = useState<How>('one');
  const [list, setList] = useState<SaveList | null>(null);
  const [keepsPlace, setKeepsPlace] = useState(false);
  const isOne = how === 'one' && files.length > 0;
  useEffect(() => {
    let isWanted = true;
    setList(null);
    void listOf(isOne ? [files] : files.map((file) => [file])).then((made) => isWanted && setList(made));
    return () => void (isWanted = false);
  }, [files, isOne]);
  const hasPlace = list?.requests.some(({ place }) => place !== undefined) ?? false;
  const wanted = useMemo(
    () =>
      list && !keepsPlace ? { ...list, requests: list.requests.map(({ place: _place, ...request }) => request) } : list,
    [list, keepsPlace],
  );
  const add = (more: FileList | null) => onChange([...files, ...[...(more ?? [])].filter(isPicture)]);
  return (
    <View className="gap-[14px]">
      <View {...namedList('Pictures', files.length)} className="flex-row flex-wrap gap-[10px]">
        {files.map((file, n) => (
          <Seen
            key={`${file.name} ${file.size} ${file.lastModified}`}
            file={file}
            place={n + 1}
            onEarlier={n === 0 ? null : () => onChange(swapped(files, n))}
            onOut={() => onChange(files.filter((_, at) => at !== n))}
          />
        ))}
      </View>
      <View className="flex-row flex-wrap gap-[10px]">
        <PictureInputs onFiles={add} again />
      </View>
      {files.length > 1 && <Choice<How> name="Several pictures" options={HOW} value={how} onChange={setHow} />}
      <Text className="font-ui text-small text-soft">
        They are saved upright and without what the camera wrote into them{hasPlace ? '' : ', the place among it'}. The
        words that stand in them are read when there is a connection.
      </Text>
      {hasPlace && (
        <Switch
          label="Keep where it was taken"
          about="Where the camera says. It stands in your library alone, beside the picture."
          on={keepsPlace}
          onChange={setKeepsPlace}
        />
      )}
      {wanted ? (
        <SaveMany reading={wanted} howMuch="picture" onDone={onDone} />
      ) : (
        <Text role="status" className="font-ui text-base text-soft">
          Making them ready…
        </Text>
      )}
    </View>
  );
}

const swapped = (files: readonly File[], n: number): File[] => {
  const next = [...files];
  next.splice(n - 1, 0, ...next.splice(n, 1));
  return next;
};

async function listOf(groups: readonly (readonly File[])[]): Promise<SaveList> {
  const list: SaveList = { requests: [], faults: [] };
  for (const group of groups) {
    if (group.length === 0) continue;
    try {
      const request = await pictureRequest(group);
      const places = await Promise.all(group.map(takenAt));
      const place = places.find((each) => each !== null);
      list.requests.push(place ? { ...request, place } : request);
    } catch (error) {
      if (!(error instanceof NotAPicture)) throw error;
      list.faults.push({ written: group.map(({ name }) => name).join(', '), says: error.message });
    }
  }
  return list;
}

/** A picture as it will be saved. */
function Seen(props: { file: File; place: number; onEarlier: (() => void) | null; onOut(): void }) {
  const { file, place, onEarlier, onOut } = props;
  const same = useSamePicture(file);
  const address = useMemo(() => URL.createObjectURL(file), [file]);
  useEffect(() => () => URL.revokeObjectURL(address), [address]);
  return (
    <View role="listitem" className="w-[132px] gap-[6px]">
      <img className="picture-to-save" src={address} alt={file.name} />
      <Text numberOfLines={1} className="font-ui text-small text-soft">
        {`${place}. ${file.name}`}
      </Text>
      {same && (
        <Text
          role="status"
          className="font-ui text-small text-ink"
        >{`Looks the same as “${titleOf(same)}”, which you have.`}</Text>
      )}
      {onEarlier && <Button label="Earlier" name={`Put ${file.name} one earlier`} onPress={onEarlier} />}
      <Button label="Leave out" name={`Leave ${file.name} out`} onPress={onOut} />
    </View>
  );
}

/** A picture by the camera, or from files. */
export function PictureInputs({ onFiles, again = false }: { onFiles(files: FileList | null): void; again?: boolean }) {
  return (
    <>
      <label className="file-button">
        {again ? 'Photograph another page' : 'Photograph a page'}
        <input type="file" accept={PICTURE_FILES} capture="environment" onChange={(event) => taken(event.target)} />
      </label>
      {again && (
        <label className="file-button">
          More pictures
          <input type="file" multiple accept={PICTURE_FILES} onChange={(event) => taken(event.target)} />
        </label>
      )}
    </>
  );

  function taken(input: HTMLInputElement) {
    onFiles(input.files);
    // The same picture may be chosen once more.
    input.value = '';
  }
}
