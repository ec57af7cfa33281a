import type { z } from 'zod';

/** What is wrong with an input, by the codes that the schemas of core/model give. */
const FAULTS: Readonly<Record<string, string>> = {
  'passphrase-too-short': 'Use at least 12 characters.',
  'code-missing': 'Give the code.',
  'passkey-without-name': 'Give the passkey a name.',
  'given-text-too-large': 'A text that is given may have 6 MB as it is sent.',
  'not-a-sender': 'Write a mail address, or @ and a domain.',
  'spans-out-of-order': 'Spans ascend and stand apart.',
  'tag-empty': 'A tag has at least one letter.',
  'tag-too-long': 'A tag has at most 100 characters.',
  'tag-under-other-key': 'A tag stands under its own key.',
  'too-many-tags': 'An item has at most 200 tags.',
  'too-many-words-put-right': 'Of one item at most 1,000 words can be put right.',
  'token-without-name': 'Say where it is used.',
};

/** What is wrong with an input, a sentence for each fault. */
export function inputWords({ issues }: Pick<z.core.$ZodError, 'issues'>): string {
  return issues
    .map(({ message, path }) => {
      const known = FAULTS[message];
      const at = path.length > 0 && !known ? ` (${path.map(String).join('.')})` : '';
      return `${known ?? `${message}.`.replace(/\.\.$/, '.')}${at}`;
    })
    .join(' ');
}
