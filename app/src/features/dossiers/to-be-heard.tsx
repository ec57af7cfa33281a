import type { Podcast } from '@dorvel/core/model';
import { useEffect, useState } from 'react';
import { Text, View } from 'react-native';
import type { z } from 'zod';
import { changeDossier } from '@/device/store/dossier-changes';
import { api } from '@/device/sync/api';
import { inWords } from '@/features/elsewhere/in-words';
import { Button } from '@/ui/button';
import { useNotices } from '@/ui/notices';
import { SectionHeading } from '@/ui/section-heading';
import { Switch } from '@/ui/setting';
import type { OpenDossier } from './use-dossier';

/** A dossier as a podcast: a feed of its own beside that of the Queue, at the same address that nobody can guess. */
export function ToBeHeard({ open: { dossier } }: { open: OpenDossier }) {
  const isHeard = dossier.choices.heard.value;
  const [address, setAddress] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const show = useNotices((state) => state.show);
  useEffect(() => {
    if (!isHeard) return;
    const take = ({ podcast }: z.infer<typeof Podcast>) =>
      setAddress(podcast?.address.replace(/feed\.xml$/, `dossiers/${dossier.id}.xml`) ?? null);
    api
      .podcast()
      .then(async (known) => take(known.podcast ? known : await api.makePodcast()))
      .catch((error: unknown) => setProblem(inWords(error)));
  }, [dossier.id, isHeard]);
  const copy = async (text: string) => {
    await navigator.clipboard.writeText(text);
    show({ text: 'The address is copied.' });
  };
  return (
    <View role="region" aria-label="As a podcast" className="gap-[12px]">
      <SectionHeading>As a podcast</SectionHeading>
      <Switch
        label="As a podcast of your own"
        about="Its articles in their order, for any podcast app. For yourself: it has whole texts."
        on={isHeard}
        onChange={(on) => void changeDossier(dossier.id, { heard: on })}
      />
      {isHeard && problem !== null && (
        <Text role="alert" className="font-ui text-small text-brick">
          {problem}
        </Text>
      )}
      {isHeard && address !== null && (
        <View className="items-start gap-[10px]">
          <Text
            selectable
            role="note"
            aria-label="Address of the podcast of this dossier"
            className="break-all font-ui text-base font-semibold text-ink"
          >
            {address}
          </Text>
          <Text className="font-ui text-small text-soft">
            The sounds are made on your server, one after the other; each is in the feed when it is ready.
          </Text>
          <Button label="Copy the address" onPress={() => void copy(address)} />
        </View>
      )}
    </View>
  );
}
