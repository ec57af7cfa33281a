import { type Mailbox, Sender } from '@dorvel/core/model';
import { useEffect, useState } from 'react';
import { Text, View } from 'react-native';
import type { z } from 'zod';
import { api } from '@/device/sync/api';
import { Button } from '@/ui/button';
import { Field } from '@/ui/field';
import { SectionHeading } from '@/ui/section-heading';
import { inWords } from './in-words';
import { SecretAddress } from './secret-address';

type Known = z.infer<typeof Mailbox>['mailbox'];

/** The reader's mail address for saving, and who may send to it. */
export function MailAddress() {
  const [mailbox, setMailbox] = useState<Known | undefined>(undefined);
  const [problem, setProblem] = useState<string | null>(null);
  const take = (asked: Promise<z.infer<typeof Mailbox>>) =>
    asked.then(
      (answer) => {
        setMailbox(answer.mailbox);
        setProblem(null);
      },
      (error: unknown) => setProblem(inWords(error)),
    );
  useEffect(() => void take(api.mailbox()), []);
  return (
    <View className="gap-[12px]">
      <SectionHeading>A mail address that saves</SectionHeading>
      {problem !== null && (
        <Text role="alert" className="font-ui text-small text-brick">
          {problem}
        </Text>
      )}
      {mailbox === null && (
        <Text className="font-ui text-base text-soft">This server takes no mail. Who runs it can switch that on.</Text>
      )}
      {mailbox && (
        <>
          <Text className="font-ui text-base text-ink">
            Send it a link, and the page is saved, with what you write beside it as the note. A newsletter or a letter
            is kept to be read itself; a PDF or a page that hangs on it is an item of its own. #words in the subject are
            tags.
          </Text>
          <SecretAddress
            name="Your mail address"
            address={mailbox.address}
            onRenew={() => void take(api.renameMailbox())}
          />
          <Senders
            key={mailbox.senders.join()}
            senders={mailbox.senders}
            keep={(list) => void take(api.allowSenders(list))}
          />
        </>
      )}
    </View>
  );
}

/** Anybody may send until somebody is named. */
function Senders({ senders, keep }: { senders: readonly string[]; keep(senders: string[]): void }) {
  const [written, setWritten] = useState(senders.join(', '));
  const [fault, setFault] = useState<string | null>(null);
  const end = () => {
    const parts = written.split(/[\s,;]+/).filter(Boolean);
    const read = parts.map((part) => Sender.safeParse(part));
    const wrong = parts.find((_, at) => !read[at]?.success);
    if (wrong !== undefined) {
      setFault(`“${wrong}” is none. Write a mail address, or @ and a domain.`);
      return;
    }
    setFault(null);
    keep(read.flatMap(({ data }) => data ?? []));
  };
  return (
    <View className="gap-[10px]">
      <Field
        label="Who may send to it"
        value={written}
        onChangeText={setWritten}
        onSubmitEditing={end}
        inputMode="email"
        fault={fault}
      />
      <Text className="font-ui text-small text-soft">
        Leave it empty for everybody who knows the address. @example.org stands for all of a domain. A sender can be
        made up: the address itself is the secret.
      </Text>
      {written !== senders.join(', ') && (
        <View className="items-start">
          <Button label="Keep these senders" kind="main" onPress={end} />
        </View>
      )}
    </View>
  );
}
