import { ServerProblem, Unreachable } from '@dorvel/core/client';
import type { Item } from '@dorvel/core/model';
import { useEffect, useState } from 'react';
import { useInstall } from '@/device/install';
import { useFeeds } from '@/device/store/library';
import { api } from '@/device/sync/api';
import { guideKey } from './guide';
import { type Beginning, type Step, stepsOffered, stepsTaken } from './steps';

const NOT_ASKED = { savesFromBrowser: null, mailed: null, takesMail: null };

/** Which first steps there are and which have been taken, as far as this device and, with a connection, the server know. */
export function useSteps(items: readonly Item[]): { offered: Step[]; taken: Set<Step> } {
  const installed = useInstall((state) => state.installed);
  const feeds = useFeeds()?.length ?? 0;
  const [asked, setAsked] = useState<Pick<Beginning, 'savesFromBrowser' | 'mailed' | 'takesMail'>>(NOT_ASKED);
  useEffect(() => {
    let wanted = true;
    Promise.all([api.tokens(), api.mailbox()]).then(
      ([{ tokens }, { mailbox }]) => {
        if (!wanted) return;
        setAsked({
          savesFromBrowser: tokens.length > 0,
          mailed: (mailbox?.lastUsedAt ?? null) !== null,
          takesMail: mailbox !== null,
        });
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
  return {
    offered: stepsOffered(asked),
    taken: stepsTaken({ items, guideKey: guideKey(), feeds, installed, ...asked }),
  };
}
