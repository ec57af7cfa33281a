import { type EpisodeState, Podcast } from '@dorvel/core/model';
import { episodeWords, titleOf } from '@dorvel/core/wording';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Text, View } from 'react-native';
import type { z } from 'zod';
import { useItems } from '@/device/store/items';
import { api } from '@/device/sync/api';
import { inWords } from '@/features/elsewhere/in-words';
import { SecretAddress } from '@/features/elsewhere/secret-address';
import { Button } from '@/ui/button';
import { namedList } from '@/ui/named-list';
import { Page } from '@/ui/page';
import { Progress } from '@/ui/progress';
import { SureButton } from '@/ui/sure-button';

type Known = z.infer<typeof Podcast>['podcast'];

const LOOK_AGAIN_MS = 3000;

/** The reader's own podcast of their Queue: its address, and how far its sounds are. */
export function PodcastScreen() {
  const { podcast, problem, make, end } = usePodcast();
  return (
    <Page title="Podcast">
      <Text className="font-ui text-base text-ink">
        Your Queue as a podcast that is yours alone: any podcast app can fetch it, and play it where there is no
        connection. Each article is an episode, with its headings as chapters.
      </Text>
      {problem !== null && (
        <Text role="alert" className="font-ui text-small text-brick">
          {problem}
        </Text>
      )}
      {podcast === null && (
        <View className="items-start gap-[8px]">
          <Button label="Begin the podcast" kind="main" onPress={make} />
          <Text className="font-ui text-small text-soft">
            The sounds are made on your server, one after the other, and take a while.
          </Text>
        </View>
      )}
      {podcast && (
        <>
          <SecretAddress
            name="Address of your podcast"
            address={podcast.address}
            onRenew={make}
            words="Who has the address can hear your Queue. Paste it into a podcast app, and show it to nobody."
          >
            <SureButton label="End the podcast" sure="Yes, end it" onPress={end} />
          </SecretAddress>
          <Episodes episodes={podcast.episodes} />
        </>
      )}
    </Page>
  );
}

function Episodes({ episodes }: { episodes: NonNullable<Known>['episodes'] }) {
  const items = useItems();
  const titles = useMemo(() => new Map(items?.map((item) => [item.id, titleOf(item)])), [items]);
  const done = episodes.filter(({ state }) => state === 'done').length;
  return (
    <View className="gap-[4px]">
      <Text role="status" className="font-ui text-base text-soft">
        {episodes.length === 0
          ? 'Nothing with a text is in the Queue.'
          : done === episodes.length
            ? `All ${done} are ready.`
            : `${done} of ${episodes.length} are ready.`}
      </Text>
      <View {...namedList('Episodes', episodes.length)}>
        {episodes.map((episode) => (
          <View key={episode.itemId} role="listitem" className="gap-[4px] border-b border-line py-[10px]">
            <Text numberOfLines={2} className="font-read text-base text-ink">
              {titles.get(episode.itemId) ?? 'An item that is not on this device yet'}
            </Text>
            <Text className="font-ui text-small text-soft">{stateWords(episode)}</Text>
            {episode.state === 'running' && <Progress of={episode.progress} />}
          </View>
        ))}
      </View>
    </View>
  );
}

function stateWords({ state, progress, seconds, fault }: NonNullable<Known>['episodes'][number]): string {
  const words: Record<EpisodeState, string> = {
    waiting: 'waits for its turn',
    running: `being read aloud, ${Math.round(progress * 100)} %`,
    done: `ready, ${Math.max(1, Math.round((seconds ?? 0) / 60))} min`,
    failed: episodeWords(fault ?? 'not-spoken'),
  };
  return words[state];
}

/** The podcast is the server's: without a connection it can be neither seen nor changed. */
function usePodcast() {
  const [podcast, setPodcast] = useState<Known | undefined>(undefined);
  const [problem, setProblem] = useState<string | null>(null);
  const take = useCallback(
    (asked: Promise<z.infer<typeof Podcast>>) =>
      void asked.then(
        (answer) => {
          setPodcast(answer.podcast);
          setProblem(null);
        },
        (error: unknown) => setProblem(inWords(error)),
      ),
    [],
  );
  useEffect(() => take(api.podcast()), [take]);
  const isMaking = podcast?.episodes.some(({ state }) => state === 'waiting' || state === 'running') ?? false;
  useEffect(() => {
    if (!isMaking) return undefined;
    const timer = setInterval(() => take(api.podcast()), LOOK_AGAIN_MS);
    return () => clearInterval(timer);
  }, [isMaking, take]);
  return {
    podcast,
    problem,
    make: () => take(api.makePodcast()),
    end: () => take(api.endPodcast()),
  };
}
