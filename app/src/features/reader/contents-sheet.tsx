import type { TextSection } from '@dorvel/core/text';
import { inMinutes } from '@dorvel/core/wording';
import { Pressable, ScrollView, Text, View } from 'react-native';
import { namedList } from '@/ui/named-list';
import { SectionHeading } from '@/ui/section-heading';
import { Sheet } from '@/ui/sheet';
import { Strand } from '@/ui/strand';

interface ContentsProps {
  parts: readonly TextSection[];
  /** Minutes of the whole. */
  minutes: number;
  /** Where the reader is, as an offset. */
  offset: number;
  onGo(offset: number): void;
}

const ROOM = 220;
/** Beside the text there is less. */
const ROOM_BESIDE = 120;

/** The parts of an article over it, on a phone. */
export function ContentsSheet({ onClose, ...contents }: ContentsProps & { onClose(): void }) {
  return (
    <Sheet title="Contents" onClose={onClose}>
      <Contents {...contents} room={ROOM} />
    </Sheet>
  );
}

/** The same at its left, on a wide screen. */
export function ContentsBeside(contents: ContentsProps) {
  return (
    <ScrollView
      role="complementary"
      aria-label="Contents"
      className="w-[300px] shrink-0 grow-0 border-x border-line"
      contentContainerClassName="px-[18px] pb-[48px] pt-[14px]"
    >
      <SectionHeading>Contents</SectionHeading>
      <Contents {...contents} room={ROOM_BESIDE} />
    </ScrollView>
  );
}

/** By their headings: how long each part is, how far the reader is in it, and the way there. */
function Contents({ parts, minutes, offset, onGo, room }: ContentsProps & { room: number }) {
  const words = parts.reduce((sum, part) => sum + part.words, 0) || 1;
  const highest = Math.min(...parts.filter(({ title }) => title !== '').map(({ level }) => level));
  const here = parts.findLast(({ start }) => start <= offset) ?? parts[0];
  return (
    <View {...namedList('Parts', parts.length)}>
      {parts.map((part) => {
        const { start, end, title, level } = part;
        const passed = Math.min(1, Math.max(0, (offset - start) / (end - start)));
        const partMinutes = (minutes * part.words) / words;
        const left =
          passed <= 0
            ? inMinutes(partMinutes)
            : passed >= 1
              ? `${inMinutes(partMinutes)}, passed`
              : `${inMinutes(partMinutes)}, ${inMinutes(partMinutes * (1 - passed))} left`;
        return (
          <View key={start} role="listitem">
            <Pressable
              role="button"
              aria-label={`${title || 'The beginning'}, ${left}`}
              aria-current={part === here ? 'location' : undefined}
              onPress={() => onGo(start)}
              className="min-h-[60px] justify-center border-b border-line py-[8px]"
              style={{ paddingLeft: 18 * Math.min(3, Math.max(0, level - highest)) }}
            >
              <Text
                className={`font-read text-base text-ink ${part === here ? 'font-semibold' : ''}`}
                numberOfLines={2}
              >
                {title || 'The beginning'}
              </Text>
              <View className="flex-row items-center gap-[10px]">
                <Strand
                  minutes={partMinutes}
                  passed={passed}
                  looseEnd={passed > 0 && passed < 1 ? passed : null}
                  label={left}
                  room={room}
                />
                <Text className="font-ui text-small text-soft">{left}</Text>
              </View>
            </Pressable>
          </View>
        );
      })}
    </View>
  );
}
