import type { Reminders } from '@dorvel/core/model';
import { dayInWords } from '@dorvel/core/wording';
import { useCallback, useEffect, useState } from 'react';
import { Text, View } from 'react-native';
import { api } from '@/device/sync/api';
import { inWords } from '@/features/elsewhere/in-words';
import { SecretAddress } from '@/features/elsewhere/secret-address';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { useNotices } from '@/ui/notices';
import { Page } from '@/ui/page';
import { SectionHeading } from '@/ui/section-heading';
import { SureButton } from '@/ui/sure-button';

const HOURS = [5, 6, 7, 8, 12, 17, 20];
const zoneHere = () => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** What brings a reader's items before them where Dorvel is not open: a daily letter, and a feed of their own. */
export function RemindersScreen() {
  const { known, problem, take } = useReminders();
  return (
    <Page title="Letter and feed">
      <Text className="font-ui text-base text-ink">
        What comes back on Now can come to you, too: three items a day, what you wanted back, and what you began.
      </Text>
      {problem !== null && (
        <Text role="alert" className="font-ui text-small text-brick">
          {problem}
        </Text>
      )}
      {known === undefined && problem === null && <Text className="font-ui text-base text-soft">Asking…</Text>}
      {known && <DailyLetter known={known} take={take} />}
      {known && <PrivateFeed known={known} take={take} />}
    </Page>
  );
}

interface PartProps {
  known: Reminders;
  take(asked: Promise<Reminders>): void;
}

function DailyLetter({ known: { mail, letter }, take }: PartProps) {
  const sendNow = useSendNow();
  const hours = [...new Set([...HOURS, ...(letter ? [letter.hour] : [])])].sort((a, b) => a - b);
  if (mail === null)
    return (
      <View role="region" aria-label="Daily letter" className="gap-[10px]">
        <SectionHeading>A letter each day</SectionHeading>
        <Text className="font-ui text-base text-soft">
          This server sends no mail. Whoever runs it can name a mail server for that (DORVEL_SMTP_URL).
        </Text>
      </View>
    );
  return (
    <View role="region" aria-label="Daily letter" className="gap-[10px]">
      <SectionHeading>A letter each day</SectionHeading>
      <Text className="font-ui text-base text-ink">To {mail}. On a day on which nothing waits there is none.</Text>
      <Choice
        name="At which hour"
        options={[
          { value: '', label: 'No letter' },
          ...hours.map((hour) => ({ value: `${hour}`, label: `${hour}:00` })),
        ]}
        value={`${letter?.hour ?? ''}`}
        onChange={(value) => take(api.setLetter(value === '' ? null : Number(value), zoneHere()))}
      />
      {letter && (
        <>
          <Text role="status" className={`font-ui text-small ${letter.isStuck ? 'text-brick' : 'text-soft'}`}>
            {letter.isStuck
              ? 'The last letter could not be sent. It is tried again every quarter of an hour.'
              : letter.sentOn === null
                ? 'The first one comes when it is that hour.'
                : `The next one comes on the day after ${dayInWords(letter.sentOn)}.`}
          </Text>
          <View className="items-start">
            <Button label="Send one now" onPress={sendNow} />
          </View>
        </>
      )}
    </View>
  );
}

function useSendNow() {
  const show = useNotices((state) => state.show);
  return () => {
    show({ text: 'Sending a letter…' });
    api.sendLetterNow().then(
      ({ isSent }) => show({ text: isSent ? 'The letter is sent.' : 'Nothing waits: no letter was sent.' }),
      (error: unknown) => show({ text: inWords(error) }),
    );
  };
}

function PrivateFeed({ known: { feed }, take }: PartProps) {
  return (
    <View role="region" aria-label="Feed" className="gap-[10px]">
      <SectionHeading>A feed that is yours alone</SectionHeading>
      <Text className="font-ui text-base text-ink">
        What came back in the last two weeks, for any program that reads feeds. It tells titles, sources and why each
        came back, and leads into your library.
      </Text>
      {feed === null ? (
        <View className="items-start">
          <Button label="Begin the feed" kind="main" onPress={() => take(api.makeReminderFeed(zoneHere()))} />
        </View>
      ) : (
        <>
          <SecretAddress
            name="Address of your feed (Atom)"
            address={feed.atom}
            onRenew={() => take(api.makeReminderFeed(zoneHere()))}
            words="Who has the address can see what comes back to you. Show it to nobody."
          >
            <SureButton label="End the feed" sure="Yes, end it" onPress={() => take(api.endReminderFeed())} />
          </SecretAddress>
          <Text className="font-ui text-small text-soft">As JSON Feed:</Text>
          <Text selectable role="note" aria-label="Address of your feed (JSON)" className="font-ui text-small text-ink">
            {feed.json}
          </Text>
        </>
      )}
    </View>
  );
}

/** They are the server's: without a connection they can be neither seen nor changed. */
function useReminders() {
  const [known, setKnown] = useState<Reminders | undefined>(undefined);
  const [problem, setProblem] = useState<string | null>(null);
  const take = useCallback(
    (asked: Promise<Reminders>) =>
      void asked.then(
        (answer) => {
          setKnown(answer);
          setProblem(null);
        },
        (error: unknown) => setProblem(inWords(error)),
      ),
    [],
  );
  useEffect(() => take(api.reminders()), [take]);
  return { known, problem, take };
}
