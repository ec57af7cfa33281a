import { Dossier, NEVER, NEW_DOSSIER } from '../model';
import { noteText } from '../notes';
import { dossierKind, type DossierMutation } from './dossier';

const uuid = (n: number) => `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const [at, later, last] = ['00lx5k2n4-0000-aaaa', '00lx5k2n5-0000-bbbb', '00lx5k2n6-0000-aaaa'];

const written = (stamp: string, closing: string, sees?: DossierMutation['sees']): DossierMutation => ({
  id: uuid(9),
  type: 'dossier',
  dossierId: uuid(1),
  madeAt: 1,
  stamp,
  set: { closing },
  columns: {},
  ...(sees ? { sees } : {}),
});

const closingAfter = (...changes: DossierMutation[]) => {
  const dossier = changes.reduce<Dossier | undefined>((before, change) => dossierKind.apply(before, change), undefined);
  return noteText({ versions: dossier?.words.closing ?? [] });
};

it('keeps what two devices wrote at its end while apart, and not what one of them had seen and replaced', () => {
  expect(closingAfter(written(at, 'One.', {}), written(later, 'Two.', {}))).toBe('One.\n\nTwo.');
  expect(closingAfter(written(at, 'One.', {}), written(later, 'Two.', { aaaa: at }))).toBe('Two.');
});

it('takes a change of a device that does not say what it had seen as one that replaces all before it', () => {
  expect(closingAfter(written(at, 'One.', {}), written(later, 'Two.', {}), written(last, 'Three.'))).toBe('Three.');
});

it('reads a dossier that was stored when the words around it were one value each', () => {
  const stamped = Object.fromEntries(
    Object.entries({ ...NEW_DOSSIER, introduction: '', closing: 'Then.' }).map(([field, value]) => [
      field,
      { value, at: field === 'introduction' ? NEVER : at },
    ]),
  );
  const read = Dossier.parse({ id: uuid(1), madeAt: 1, choices: stamped, columns: {} });
  expect(noteText({ versions: read.words.closing })).toBe('Then.');
  expect([read.words.introduction, Object.hasOwn(read.choices, 'closing')]).toEqual([[], false]);
  expect(Dossier.parse(read)).toEqual(read);
});
