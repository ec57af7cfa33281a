import type { Happening } from '../trail';
import { inMinutes } from './reading-words';

const TO = { queue: 'queued', kept: 'kept', 'let-go': 'let go' } as const;

/** What happened, in words: "read for 6 min", "3 highlights". */
export function happeningInWords(happening: Happening): string {
  switch (happening.kind) {
    case 'saved':
    case 'finished':
      return happening.kind;
    case 'sorted':
      return TO[happening.to];
    case 'read':
    case 'heard':
      return `${happening.kind} for ${inMinutes(happening.minutes)}`;
    case 'marked':
      return counted(happening.count, 'highlight');
    case 'noted':
      return counted(happening.count, 'note');
    case 'carded':
      return counted(happening.count, 'card');
    case 'collected':
      return `into the dossier “${happening.into}”`;
    case 'brought-back':
      return nthTime('brought back', happening.times);
    case 'put-off':
      return nthTime('put off', happening.times);
    case 'best':
      return 'called one of the best';
  }
}

const nthTime = (what: string, times: number): string =>
  times === 1 ? what : `${what}, for the ${times}th time`.replace(/\b(\d*)([123])th/, ordinal);

function ordinal(whole: string, tens: string, unit: string): string {
  return tens.endsWith('1') ? whole : `${tens}${unit}${['st', 'nd', 'rd'][Number(unit) - 1] ?? 'th'}`;
}

const counted = (count: number, unit: string): string => `${count} ${unit}${count === 1 ? '' : 's'}`;
