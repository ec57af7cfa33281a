import { Text, View } from 'react-native';
import { Sheet } from '@/ui/sheet';

const KEYS: readonly [key: string, does: string][] = [
  ['1 … 5', 'Now, Inbox, Queue, Library, You'],
  ['s', 'Save an address'],
  ['w', 'Write a note, on the open item or by itself'],
  ['/', 'Find, in the Library'],
  ['n / p', 'Open the next or the previous item of the list'],
  ['↑ ↓ Enter', 'Look through the list, open'],
  ['Space', 'One screen on, in the article'],
  ['l', 'Listen from here, pause, go on'],
  [', / .', 'Back or on by a sentence of the voice'],
  ['< / >', 'Back or on by a paragraph of the voice'],
  ['[ / ]', 'Back or on by 15 seconds of the voice'],
  ['r', 'Say the sentence again, slower'],
  ['m', 'Mark what is selected, or the sentence that you read or hear'],
  ['t', 'How the text looks'],
  ['c', 'Contents of the article'],
  ['\\', 'The list away from beside the article, and back (wide screens)'],
  ['v', 'The article on the whole screen (wide screens)'],
  ['f', 'Find in the article'],
  ['o', 'The next echo: a word that stands elsewhere in your library'],
  ['← →', 'Between echoes, while one is open'],
  ['d', 'Into the dossier that you used last'],
  ['e', 'Finished'],
  ['Escape', 'Back to the list'],
  ['q k g d x z', 'While sorting: queue, keep, tag, into a dossier, let go, later'],
  ['1 … 4', 'From memory: how well you knew it; Space shows the answer'],
  ['u', 'Undo what was said last'],
  ['?', 'These keys'],
];

export function KeysSheet({ onClose }: { onClose(): void }) {
  return (
    <Sheet title="Keys" onClose={onClose}>
      {KEYS.map(([key, does]) => (
        <View key={key} className="flex-row border-b border-line py-[9px]">
          <Text className="w-[96px] font-ui text-base font-semibold text-ink">{key}</Text>
          <Text className="flex-1 font-ui text-base text-ink">{does}</Text>
        </View>
      ))}
    </Sheet>
  );
}
