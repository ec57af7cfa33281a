import { z } from 'zod';
import { Id, Instant, Pin, PinSubject } from '../model';
import { CHANGE, type Kind } from './kind';
import { mergeRegisters } from './registers';

/** Something is pinned to Now, or taken off. */
const PinMutation = z.object({
  ...CHANGE,
  type: z.literal('pin'),
  pinId: Id,
  madeAt: Instant,
  of: PinSubject,
  pinned: z.boolean(),
});
export type PinMutation = z.infer<typeof PinMutation>;

function applyPin(pin: Pin | undefined, { pinId, madeAt, of, pinned, stamp }: PinMutation): Pin {
  const made: Pin = { id: pinId, madeAt, of, choices: { pinned: { value: pinned, at: stamp } } };
  return pin ? mergePins(pin, made) : made;
}

/** Joins two states of one: the decision by its latest stamp; what it is of cannot differ, but where a file says so. */
function mergePins(a: Pin, b: Pin): Pin {
  return {
    ...a,
    ...b,
    madeAt: Math.min(a.madeAt, b.madeAt),
    of: a.of < b.of ? a.of : b.of,
    choices: mergeRegisters(a.choices, b.choices),
  };
}

/** What stands on Now because the reader put it there. */
export const pinKind: Kind<Pin, PinMutation> = {
  name: 'pin',
  plural: 'pins',
  version: 1,
  schema: Pin,
  mutation: PinMutation,
  types: ['pin'],
  idOf: ({ pinId }) => pinId,
  itemIdOf: () => null,
  apply: applyPin,
  merge: mergePins,
  restate: ({ id: pinId, madeAt, of, choices: { pinned } }, base) => [
    { ...base(pinned.at), type: 'pin', pinId, madeAt, of, pinned: pinned.value },
  ],
};
