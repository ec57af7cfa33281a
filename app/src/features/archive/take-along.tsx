import type { NightlyArchive } from '@dorvel/core/model';
import { useEffect, useState } from 'react';
import { Text, View } from 'react-native';
import { useWaitingCount } from '@/device/store/library';
import { api } from '@/device/sync/api';
import { inWords } from '@/features/elsewhere/in-words';
import { SectionHeading } from '@/ui/section-heading';

/** All of the library as one file, which the browser downloads as it downloads any: with its progress, and its way to stop and go on. */
export function TakeAlong() {
  const waiting = useWaitingCount();
  return (
    <View role="region" aria-label="Take everything along" className="items-start gap-[10px]">
      <SectionHeading>Out</SectionHeading>
      <Text className="font-ui text-base text-ink">
        Everything, in open formats: texts as Markdown and as pages, pictures, bookmarks, feeds, what you marked and
        wrote, and all records. A README inside says what is what; it can be read without Dorvel.
      </Text>
      {waiting > 0 && (
        <Text className="font-ui text-small text-soft">What has not been sent to your server yet is not in it.</Text>
      )}
      <a className="link-button" href="/api/archive" download>
        Take everything along
      </a>
      <Nightly />
    </View>
  );
}

function Nightly() {
  const [known, setKnown] = useState<NightlyArchive['nightly'] | undefined>(undefined);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    api.nightlyArchive().then(
      ({ nightly }) => setKnown(nightly),
      (error: unknown) => setProblem(inWords(error)),
    );
  }, []);
  if (problem !== null) return <Text className="font-ui text-small text-soft">{problem}</Text>;
  if (known === undefined) return null;
  return (
    <Text className="font-ui text-small text-soft">
      {known === null
        ? 'Your server can write it into a folder of its own each night, too. Whoever runs it can name one (DORVEL_NIGHTLY_FOLDER).'
        : nightlyWords(known)}
    </Text>
  );
}

function nightlyWords({ lastAt, bytes, keptDays, isStuck }: NonNullable<NightlyArchive['nightly']>): string {
  const kept = `Your server writes it into a folder of its own each night, and keeps each for ${keptDays === 1 ? 'a day' : `${keptDays} days`}.`;
  const last =
    lastAt === null
      ? 'The first is still to come.'
      : `The last is of ${new Date(lastAt).toLocaleString('en-GB', { dateStyle: 'long', timeStyle: 'short' })}, ${sizeWords(bytes ?? 0)}.`;
  return [
    kept,
    last,
    isStuck ? 'The one after it could not be written; whoever runs the server finds why in its log.' : '',
  ]
    .filter(Boolean)
    .join(' ');
}

const sizeWords = (bytes: number): string =>
  bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1e3))} kB` : `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB`;
