import { EditorSelection, EditorState } from '@codemirror/state';
import { around, before, link, type MarkdownCommand } from './markdown-commands';

/** What a command makes of a text in which `[` and `]` stand around what is selected, written the same way. */
function after(command: MarkdownCommand, written: string): string {
  const from = written.indexOf('‹');
  const to = written.indexOf('›') - 1;
  const state = EditorState.create({
    doc: written.replace(/[‹›]/g, ''),
    selection: EditorSelection.range(from, to),
  });
  const { state: next } = state.update(command(state));
  const { main } = next.selection;
  return `${next.sliceDoc(0, main.from)}‹${next.sliceDoc(main.from, main.to)}›${next.sliceDoc(main.to)}`;
}

it.each([
  ['put around words', around('**'), 'Tar ‹the seam› first', 'Tar **‹the seam›** first'],
  ['taken away again', around('**'), 'Tar **‹the seam›** first', 'Tar ‹the seam› first'],
  ['put where the cursor is, with the cursor inside', around('*'), 'Tar ‹›', 'Tar *‹›*'],
  ['left, when what it stands around is written', around('**'), 'Tar **seam‹›**', 'Tar **seam**‹›'],
  ['put inside of another', around('*'), 'Tar **‹the seam›**', 'Tar ***‹the seam›***'],
])('a mark is %s', (_, command, written, expected) => {
  expect(after(command, written)).toBe(expected);
});

it.each([
  ['each line that is selected', '‹Tar\nOakum›', '- ‹Tar\n- Oakum›'],
  ['the line of the cursor', 'Tar\nOak‹›um', 'Tar\n- Oak‹›um'],
  ['no line that has it, when all have', '- ‹Tar\n- Oakum›', '‹Tar\nOakum›'],
])('a start is put before %s', (_, written, expected) => {
  expect(after(before('- '), written).replace(/^‹- /, '- ‹')).toBe(expected);
});

it.each([
  ['words', 'See ‹the tables› there', 'See [the tables](‹address›) there'],
  ['an address', 'See ‹https://tides.example/a›', 'See [‹words›](https://tides.example/a)'],
  ['nothing', 'See ‹›', 'See [‹words›](address)'],
])('a link is made of %s', (_, written, expected) => {
  expect(after(link, written)).toBe(expected);
});
