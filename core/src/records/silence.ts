import { z } from 'zod';
import { Id, Instant, Silence, Silenced } from '../model';
import { CHANGE, type Kind } from './kind';
import { mergeRegisters } from './registers';

/** Something is silenced, or may speak again. */
const SilenceMutation = z.object({
  ...CHANGE,
  type: z.literal('silence'),
  silenceId: Id,
  madeAt: Instant,
  what: Silenced,
  silenced: z.boolean(),
});
export type SilenceMutation = z.infer<typeof SilenceMutation>;

function applySilence(
  silence: Silence | undefined,
  { silenceId, madeAt, what, silenced, stamp }: SilenceMutation,
): Silence {
  const made: Silence = { id: silenceId, madeAt, what, choices: { silenced: { value: silenced, at: stamp } } };
  return silence ? mergeSilences(silence, made) : made;
}

/** Joins two states of one: the decision by its latest stamp, what it is about as it was said first. */
function mergeSilences(a: Silence, b: Silence): Silence {
  const { what, madeAt } = isEarlier(a, b) ? a : b;
  return { ...a, ...b, what, madeAt, choices: mergeRegisters(a.choices, b.choices) };
}

const isEarlier = (a: Silence, b: Silence): boolean =>
  a.madeAt < b.madeAt || (a.madeAt === b.madeAt && JSON.stringify(a.what) < JSON.stringify(b.what));

/** What the reader does not want to be reminded by. */
export const silenceKind: Kind<Silence, SilenceMutation> = {
  name: 'silence',
  plural: 'silences',
  version: 2,
  schema: Silence,
  mutation: SilenceMutation,
  types: ['silence'],
  idOf: ({ silenceId }) => silenceId,
  itemIdOf: () => null,
  apply: applySilence,
  merge: mergeSilences,
  restate: ({ id: silenceId, madeAt, what, choices: { silenced } }, base) => [
    { ...base(silenced.at), type: 'silence', silenceId, madeAt, what, silenced: silenced.value },
  ],
};
