import { silencedWords } from '../model';
import type { Mutation } from '../records';

/** What a change is, in a few words for the reader: “Tags: boats, larch”. */
export function changeWords(mutation: Mutation): string {
  switch (mutation.type) {
    case 'save':
      return `Save: ${mutation.address}`;
    case 'choose':
      return 'What you decided about an item';
    case 'tag':
      return `Tags: ${Object.entries(mutation.set)
        .map(([key, name]) => name ?? `${key} taken off`)
        .join(', ')}`;
    case 'put-right':
      return `Words put right: ${Object.values(mutation.set)
        .map(({ is }) => is)
        .filter(Boolean)
        .join(', ')}`;
    case 'progress':
      return 'Your place in a text';
    case 'refetch':
      return 'Fetch a page again';
    case 'provide':
      return `A text that you gave${mutation.given.name === undefined ? '' : `: ${mutation.given.name}`}`;
    case 'activity':
      return 'A time that you spent reading';
    case 'follow':
      return `Follow: ${mutation.address}`;
    case 'feed':
      return 'What you decided about a feed';
    case 'mark':
      return `A highlight: “${mutation.passage.exact.slice(0, 80)}”`;
    case 'change-mark':
      return 'A change to a highlight';
    case 'search':
      return `A kept search: ${mutation.set.written}`;
    case 'write':
      return `A note${mutation.set.text === undefined ? '' : `: ${mutation.set.text.slice(0, 80)}`}`;
    case 'card':
      return `A card${mutation.set.front === undefined ? '' : `: ${mutation.set.front.slice(0, 80)}`}`;
    case 'silence': {
      const { what, silenced } = mutation;
      return `${silenced ? 'Silenced' : 'No longer silenced'}: ${silencedWords(what) ?? 'the first steps'}`;
    }
    case 'pin':
      return mutation.pinned ? 'Something pinned to Now' : 'Something taken off Now';
    case 'dossier':
      return mutation.set.title === undefined ? 'A change to a dossier' : `A dossier: ${mutation.set.title}`;
    case 'entry':
      return mutation.set.rank === undefined ? 'A change in a dossier' : 'Something put in its place in a dossier';
    case 'recall':
      return 'An answer to a card';
  }
}
