import { TermProfile } from '@dorvel/core/terms';
import { GivenUp, type Workshop } from '../apart/workshop';

/** Profiles copies somewhere that is not the request's thread. */
export interface Profiler {
  /** @param record the copy as it is stored */
  profile(record: string): Promise<TermProfile>;
}

const TIME_LIMIT_MS = 30_000;
const NOTHING: TermProfile = { length: 0, title: [], terms: [], phrases: [], parts: [], sketch: [] };

/** A profiler over a workshop with the tasks of tasks/texts.child.ts. */
export function workshopProfiler(workshop: Workshop): Profiler {
  return {
    async profile(record) {
      try {
        return TermProfile.parse(await workshop.run('profile', record, TIME_LIMIT_MS));
      } catch (error) {
        if (!(error instanceof GivenUp) || error.why === 'ended') throw error;
        // A text that cannot be profiled is near to nothing, now and later: it is not tried again at each question.
        return NOTHING;
      }
    },
  };
}
