import { NEVER, type Note, onlyVersion } from '../model';
import { uuid } from './changes';

interface Made {
  text?: string;
  task?: Note['choices']['task']['value'];
  dueOn?: string | null;
  removed?: boolean;
}

/** A note that says something, with what is named otherwise than nobody has touched it. */
export function noteFrom({
  text = '',
  task = 'none',
  dueOn = null,
  removed = false,
  ...rest
}: Partial<Note> & Made): Note {
  const made = <Value>(value: Value) => ({ value, at: NEVER });
  return {
    id: uuid(900),
    madeAt: 0,
    itemId: null,
    on: { kind: rest.itemId ? 'item' : 'nothing' },
    versions: [onlyVersion({ value: text, at: NEVER })],
    choices: { task: made(task), dueOn: made(dueOn), removed: made(removed) },
    ...rest,
  };
}
