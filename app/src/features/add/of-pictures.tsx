import { titleOf } from '@dorvel/core/wording';
import { useEffect, useMemo, useState } from 'react';
import { Text, View } from 'react-native';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { namedList } from '@/ui/named-list';
import { Switch } from '@/ui/setting';
import type { SaveList } from './files';
import { isPicture, type Making, NotAPicture, PICTURE_FILES, pictureRequest } from './pictures';
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
  const [keepsPlace, setKeepsPlace] = useState(false);
  const { list, ready } = useMade(files, how === 'one');
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
          {files.length < 2 ? 'Making it ready…' : `Making picture ${ready + 1} of ${files.length} ready…`}
        </Text>
      )}
    </View>
  );
}

/** Pictures made ready to be saved, and how many of them are so far; made anew when they are others. */
function useMade(files: readonly File[], asOne: boolean): { list: SaveList | null; ready: number } {
  const [list, setList] = useState<SaveList | null>(null);
  const [ready, setReady] = useState(0);
  const [fault, setFault] = useState<Error | null>(null);
  useEffect(() => {
    const ending = new AbortController();
    const { signal } = ending;
    setList(null);
    setReady(0);
    const groups = asOne && files.length > 0 ? [files] : files.map((file) => [file]);
    void listOf(groups, { signal, onReady: (count) => !signal.aborted && setReady(count) }).then(
      (made) => !signal.aborted && setList(made),
      (error: unknown) => !signal.aborted && setFault(error instanceof Error ? error : new Error(String(error))),
    );
    return () => ending.abort();
  }, [files, asOne]);
  // The nearest boundary says so.
  if (fault !== null) throw fault;
  return { list, ready };
}

const swapped = (files: readonly File[], n: number): File[] => {
  const next = [...files];
  next.splice(n - 1, 0, ...next.splice(n, 1));
  return next;
};

async function listOf(groups: readonly (readonly File[])[], making: Required<Making>): Promise<SaveList> {
  const list: SaveList = { requests: [], faults: [] };
  let before = 0;
  for (const group of groups) {
    if (group.length === 0) continue;
    try {
      const from = before;
      before += group.length;
      const request = await pictureRequest(group, { ...making, onReady: (count) => making.onReady(from + count) });
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
