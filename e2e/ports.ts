import { tmpdir } from 'node:os';
import path from 'node:path';

/** Where the tests' own servers stand, apart from a demo that may be running. */
const first = Number(process.env.E2E_PORT ?? 4940);
export const SEEDED_PORT = first;
export const SMALL_WEB_PORT = first + 1;
export const KILLED_PORT = first + 3;
export const ACCOUNTS_PORT = first + 4;
export const SORTING_PORTS = { phone: first + 5, wide: first + 6 };
export const SAVING_PORTS = { phone: first + 7, wide: first + 8 };
export const FEEDS_PORTS = { phone: first + 9, wide: first + 10 };
export const MAIL_PORT = first + 11;
export const LETTER_PORT = first + 12;
export const BULK_PORTS = { phone: first + 13, wide: first + 14 };

export const PICTURES_PORTS = { phone: first + 57, wide: first + 58 };
export const SIEGE_PORT = first + 15;
export const SIEGE_SITE_PORT = first + 16;
export const MISHAP_PORT = first + 17;
/** Of servers that are started by the commands themselves, and the two after it. */
export const STOP_PORT = SEEDED_PORT + 60;
export const BOUNDS_PORT = first + 18;
export const BOUNDS_SITE_PORT = first + 19;
export const ENTRIES_PORT = first + 22;
export const ACCOUNT_PORTS = { phone: first + 23, wide: first + 24 };
export const CODE_PORT = first + 25;
export const WATCHED_PORT = first + 26;
export const METRICS_PORT = first + 27;
export const PAIR_PORTS = [first + 28, first + 29] as const;
export const DATABASE_PORT = SEEDED_PORT + 70;
export const ARCHIVE_PORTS = { phone: first + 20, wide: first + 21 };
export const ARCHIVE_KILLED_PORT = first + 59;
export const UPDATE_PORT = SEEDED_PORT + 63;
export const FIRST_STEPS_PORTS = { phone: first + 55, wide: first + 56 };

/** Of the servers that each of the workers has for itself. */
export function portsOf(worker: number) {
  const at = first + 30 + worker * 4;
  return { empty: at, emptyMail: at + 1, seeded: at + 2, seededMail: at + 3 };
}

/** What the demo is started on, and where a copy of its library is kept as it was seeded. */
export const DATA_OF_DEMO = path.join(tmpdir(), `dorvel-e2e-${SEEDED_PORT}-seeded`);
export const LIBRARY_OF_DEMO = `${DATA_OF_DEMO}-copy`;

export const page = (host: string, path: string) => `http://${host}.localhost:${SMALL_WEB_PORT}${path}`;
