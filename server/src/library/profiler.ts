import { Excerpt } from '@dorvel/core/model';
import { TermProfile } from '@dorvel/core/terms';
import { z } from 'zod';
import { GivenUp, type Workshop } from '../apart/workshop';

/** What is made of a text to relate it to others: its profile, and what it says of its terms. */
export const Profiled = z.object({ profile: TermProfile, excerpts: z.array(Excerpt) });
export type Profiled = z.infer<typeof Profiled>;

/** Profiles copies somewhere that is not the request's thread. */
export interface Profiler {
  /** @param record the copy as it is stored */
  profile(record: string): Promise<Profiled>;
}

const TIME_LIMIT_MS = 30_000;
const NOTHING: Profiled = {
  profile: { length: 0, title: [], terms: [], phrases: [], parts: [], sketch: [] },
  excerpts: [],
};

/** A profiler over a workshop with the tasks of tasks/texts.child.ts. */
export function workshopProfiler(workshop: Workshop): Profiler {
  return {
    async profile(record) {
      try {
        return Profiled.parse(await workshop.run('profile', record, TIME_LIMIT_MS));
      } catch (error) {
        if (!(error instanceof GivenUp) || error.why === 'ended') throw error;
        // A text that cannot be profiled is near to nothing, now and later: it is not tried again at each question.
        return NOTHING;
      }
    },
  };
}
