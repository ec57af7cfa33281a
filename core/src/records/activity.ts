import { z } from 'zod';
import { Activity, Id } from '../model';
import { CHANGE, type Kind } from './kind';

/** A sitting began, or has grown. */
const ActivityMutation = z.object({
  ...CHANGE,
  itemId: Id,
  type: z.literal('activity'),
  activity: z.object(Activity.shape),
});
export type ActivityMutation = z.infer<typeof ActivityMutation>;

/** Joins two states of one sitting: the longer one holds. */
function mergeActivities(a: Activity, b: Activity): Activity {
  const longer = a.seconds > b.seconds || (a.seconds === b.seconds && a.words >= b.words) ? a : b;
  const shorter = longer === a ? b : a;
  return { ...shorter, ...longer, words: Math.max(a.words, b.words) };
}

/** A sitting with an item. */
export const activityKind: Kind<Activity, ActivityMutation> = {
  name: 'activity',
  plural: 'activities',
  version: 1,
  schema: Activity,
  mutation: ActivityMutation,
  types: ['activity'],
  idOf: ({ activity }) => activity.id,
  itemIdOf: ({ itemId }) => itemId,
  apply: (known, { activity }) => (known ? mergeActivities(known, activity) : activity),
  merge: mergeActivities,
  combine: (earlier, later) => (earlier.activity.id === later.activity.id ? later : null),
  restate: (activity, base) => [{ ...base(), type: 'activity', itemId: activity.itemId, activity }],
};
