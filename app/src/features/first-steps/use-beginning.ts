import { ServerProblem, Unreachable } from '@dorvel/core/client';
import type { Item } from '@dorvel/core/model';
import { useEffect, useState } from 'react';
import { useInstall } from '@/device/install';
import { useFeeds } from '@/device/store/library';
import { api } from '@/device/sync/api';
import { guideKey } from './guide';
import { type Step, stepsTaken } from './steps';

/** Which first steps have been taken, as far as this device and, with a connection, the server know. */
export function useStepsTaken(items: readonly Item[]): Set<Step> {
  const installed = useInstall((state) => state.installed);
  const feeds = useFeeds()?.length ?? 0;
  const [asked, setAsked] = useState<{ savesFromBrowser: boolean; mailed: boolean } | null>(null);
  useEffect(() => {
    let wanted = true;
    Promise.all([api.tokens(), api.mailbox()]).then(
      ([{ tokens }, { mailbox }]) => {
        if (wanted) setAsked({ savesFromBrowser: tokens.length > 0, mailed: (mailbox?.lastUsedAt ?? null) !== null });
      },
      (error: unknown) => {
        // Not known without a connection or a session; asked again the next time that the steps are looked at.
        if (!(error instanceof Unreachable) && !(error instanceof ServerProblem)) throw error;
      },
    );
    return () => {
      wanted = false;
    };
  }, []);
  return stepsTaken({
    items,
    guideKey: guideKey(),
    feeds,
    installed,
    savesFromBrowser: asked?.savesFromBrowser ?? null,
    mailed: asked?.mailed ?? null,
  });
}
