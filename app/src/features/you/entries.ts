/** What can be found in You: settings, places of the reader's own work, and what is set up once. */
interface Entry {
  label: string;
  href: string;
  /** Words by which it is looked for beside its label: what stands on its screen, and what others call that. */
  holds: readonly string[];
}

export interface Group {
  title: string;
  entries: readonly Entry[];
}

export const GROUPS: readonly Group[] = [
  {
    title: 'Reading',
    entries: [
      {
        label: 'How the text looks',
        href: '/you/text',
        holds: [
          'Theme, day or night, dark',
          'Typeface, font',
          'Text size',
          'Line spacing',
          'Line length, measure',
          'Paragraphs, indent',
          'Justified lines, hyphens',
          'Wrap code',
          'Scroll or turn pages',
          'Echoes: few, more, none',
        ],
      },
      { label: 'How lists look', href: '/you/lists', holds: ['Pictures in rows', 'Density, compact rows'] },
      {
        label: 'Pace and silenced words',
        href: '/you/pace',
        holds: ['Words a minute, reading speed', 'Silenced echoes'],
      },
    ],
  },
  {
    title: 'Listening',
    entries: [
      {
        label: 'Voices and speed',
        href: '/you/listening',
        holds: [
          'Speed, rate',
          'Voices on this device, languages',
          'Headings, footnotes and tables aloud',
          'Headset, lock screen, previous',
          'Pronunciation, how words are said',
        ],
      },
      { label: 'Podcast', href: '/you/podcast', holds: ['The Queue in a podcast app'] },
    ],
  },
  {
    title: 'Saving',
    entries: [
      { label: 'First steps', href: '/you/first-steps', holds: ['Guide, help, how it works'] },
      {
        label: 'Save pages as',
        href: '/you/saving',
        holds: ['How much is kept: words, pictures, whole page', 'Where it was saved, place, position, location'],
      },
      {
        label: 'Save from elsewhere',
        href: '/you/elsewhere',
        holds: [
          'Button in the browser, extension, pairing code',
          'Bookmark that saves',
          'Mail address to save to',
          'Tokens',
        ],
      },
      { label: 'Feeds', href: '/feeds', holds: ['Subscriptions, RSS, Atom, OPML'] },
    ],
  },
  {
    title: 'Your work',
    entries: [
      { label: 'Highlights', href: '/marks', holds: ['Marked passages, annotations, export'] },
      { label: 'Notes', href: '/notes', holds: ['Your own words, to do, tasks'] },
      { label: 'Cards', href: '/cards', holds: ['Questions, cloze, flash cards'] },
      { label: 'Dossiers', href: '/dossiers', holds: ['Sets, collections, handed on'] },
    ],
  },
  {
    title: 'Bringing back',
    entries: [
      { label: 'From memory', href: '/from-memory', holds: ['Cards that are due, recall'] },
      { label: 'Work it over', href: '/work-over', holds: ['Highlights in your own words'] },
      { label: 'Look-back', href: '/look-back', holds: ['Week, month, review'] },
      { label: 'How I am doing', href: '/doing', holds: ['Charts, forecast, the pile, statistics'] },
      { label: 'Letter and feed', href: '/you/reminders', holds: ['Daily mail, reminders, Atom'] },
    ],
  },
  {
    title: 'This device',
    entries: [
      {
        label: 'On this device',
        href: '/you/device',
        holds: [
          'Keys of one letter, shortcuts',
          'Room, storage, offline',
          'Changes not sent',
          'Not taken by the server',
          'Install, home screen',
        ],
      },
    ],
  },
  {
    title: 'Account',
    entries: [
      {
        label: 'Account',
        href: '/you/account',
        holds: [
          'Sign out',
          'Sessions, devices',
          'Passphrase, password',
          'Passkeys',
          'Invitations',
          'Delete, erase the account',
        ],
      },
      {
        label: 'Your library as a file',
        href: '/you/archive',
        holds: ['Take along, export, backup', 'Bring in, import, archive'],
      },
    ],
  },
];

/** An entry that answers to what was written, and the words on its screen that did. */
export interface Match extends Entry {
  by: string | null;
}

/**
 * The groups with the entries that answer to all the words written, each word as the beginning of one of theirs.
 *
 * @param written what the reader typed; nothing but blanks leaves all of them
 * @returns groups that are not empty, in their order; `by` is null where the label itself answers
 */
export function matching(groups: readonly Group[], written: string): { title: string; entries: Match[] }[] {
  const asked = wordsOf(written);
  return groups
    .map(({ title, entries }) => ({ title, entries: entries.flatMap((entry) => matched(title, entry, asked)) }))
    .filter(({ entries }) => entries.length > 0);
}

function matched(group: string, entry: Entry, asked: readonly string[]): Match[] {
  const answers = (text: string) => asked.every((word) => wordsOf(text).some((each) => each.startsWith(word)));
  if (answers(`${group} ${entry.label}`)) return [{ ...entry, by: null }];
  const by = entry.holds.find(answers);
  if (by !== undefined) return [{ ...entry, by }];
  return answers([group, entry.label, ...entry.holds].join(' ')) ? [{ ...entry, by: null }] : [];
}

const wordsOf = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
