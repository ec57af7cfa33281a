import type { ArchiveLook } from '@dorvel/core/model';
import { ARCHIVE_FAULT_WORDS, archiveLines, hasMore, STANDING_WORDS } from '@dorvel/core/wording';
import { Text, View } from 'react-native';
import { Button } from '@/ui/button';
import { FileButton } from '@/ui/file-button';
import { namedList } from '@/ui/named-list';
import { Progress } from '@/ui/progress';
import { SectionHeading } from '@/ui/section-heading';
import { useBringIn } from './use-bring-in';

/** An archive in again: sent, looked through, and brought in when the reader has seen what that means. */
export function BringIn() {
  const { state, send, bringIn, leave, stop } = useBringIn();
  return (
    <View role="region" aria-label="Bring an archive in" className="items-start gap-[10px]">
      <SectionHeading>In</SectionHeading>
      <Text className="font-ui text-base text-ink">
        Such a file comes in again, into a library that is empty or full. You see beforehand what it has. Nothing that
        is here is lost: of everything that was decided twice, the later decision holds.
      </Text>
      {state.at === 'nothing' && (
        <>
          {state.problem !== null && (
            <Text role="alert" className="font-ui text-small text-brick">
              {state.problem}
            </Text>
          )}
          <FileButton label="Choose an archive" accept=".zip,application/zip" onFile={(file) => void send(file)} />
        </>
      )}
      {state.at === 'under-way' && (
        <View role="status" className="w-full gap-[10px]">
          <Text className="font-ui text-base text-ink">{state.words}</Text>
          <Progress of={state.fraction} />
          <View className="items-start">
            <Button label="Stop" onPress={stop} />
          </View>
        </View>
      )}
      {state.at === 'looked' && (
        <View className="w-full gap-[12px]">
          <Look look={state.look} isIn={false} />
          <View className="flex-row flex-wrap gap-[10px]">
            {hasMore(state.look) && <Button label="Bring it in" kind="main" onPress={() => void bringIn()} />}
            <Button label={hasMore(state.look) ? 'Leave it' : 'Done'} onPress={leave} />
          </View>
        </View>
      )}
      {state.at === 'in' && (
        <View className="w-full gap-[12px]">
          <Look look={state.look} isIn />
          <View className="items-start">
            <Button label="Done" onPress={leave} />
          </View>
        </View>
      )}
    </View>
  );
}

function Look({ look, isIn }: { look: ArchiveLook; isIn: boolean }) {
  const lines = archiveLines(look, isIn);
  const { differing, faults, faultCount } = look;
  return (
    <View role="status" className="w-full gap-[10px]">
      <Text className="font-ui text-base font-semibold text-ink">{headline(look, isIn)}</Text>
      <View {...namedList('What it has', lines.length)} className="gap-[2px]">
        {lines.map((line) => (
          <Text key={line} role="listitem" className="font-ui text-base text-ink">
            {line}
          </Text>
        ))}
      </View>
      {differing.length > 0 && (
        <View
          {...namedList('What differs', differing.length)}
          className="gap-[4px] border-l-[3px] border-line pl-[12px]"
        >
          {differing.map(({ plural, title, standing }, n) => (
            <Text key={`${plural} ${n}`} role="listitem" className="font-ui text-small text-soft">
              <Text className="font-semibold text-ink">{title}</Text> — {STANDING_WORDS[standing]}
            </Text>
          ))}
        </View>
      )}
      {faultCount > 0 && (
        <View role="group" aria-label="Cannot be brought in" className="gap-[4px]">
          <Text className="font-ui text-small font-semibold text-brick">{faultCount} cannot be brought in:</Text>
          {faults.map(({ plural, name, fault }, n) => (
            <Text key={`${plural} ${n}`} className="font-ui text-small text-brick">
              {plural}, {name}: {ARCHIVE_FAULT_WORDS[fault]}
            </Text>
          ))}
        </View>
      )}
    </View>
  );
}

function headline(look: ArchiveLook, isIn: boolean): string {
  const made = look.madeAt && !Number.isNaN(Date.parse(look.madeAt)) ? new Date(look.madeAt) : null;
  const day = made?.toLocaleDateString('en-GB', { dateStyle: 'long' });
  const archive = [`The archive`, day ? `of ${day}` : '', look.name ? `from the library of ${look.name}` : '']
    .filter(Boolean)
    .join(' ');
  if (isIn) return `${archive} is in.`;
  return hasMore(look) ? `${archive}:` : `${archive} has nothing that is not here.`;
}
