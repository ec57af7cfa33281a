import type { ArchiveLook } from '../model';
import { archiveLines, hasMore, recordTitle } from './archive-words';

const none = { new: 0, same: 0, 'newer-here': 0, 'newer-there': 0, both: 0 };
const look = (kinds: ArchiveLook['kinds']): ArchiveLook => ({
  ...{ madeAt: null, name: null, kinds, differing: [], faults: [], faultCount: 0 },
});

it('tells of each kind what is new, what is here and what differs, items first', () => {
  const one = look([
    { plural: 'pictures', standings: { ...none, new: 1200 } },
    { plural: 'items', standings: { new: 3, same: 405, 'newer-here': 1, 'newer-there': 2, both: 1 } },
  ]);
  expect(archiveLines(one, false)).toEqual(['Items: 3 new, 405 here already, 4 that differ', 'Pictures: 1,200 new']);
  expect(archiveLines(one, true)[0]).toBe('Items: 3 came in, 405 were here, 4 joined with what was here');
});

it.each([
  [{ same: 4 }, false],
  [{ 'newer-here': 1 }, false],
  [{ new: 1 }, true],
  [{ 'newer-there': 1 }, true],
  [{ both: 1 }, true],
])('knows whether %p is more than there is here', (standings, more) => {
  expect(hasMore(look([{ plural: 'notes', standings: { ...none, ...standings } }]))).toBe(more);
});

it('calls a record by its first words, or by its kind', () => {
  const note = { id: 'a', versions: [{ at: '1', text: 'First line\nsecond', sees: {} }] };
  expect(recordTitle('notes', note)).toBe('First line');
  expect(recordTitle('pins', note)).toBe('pin');
});
