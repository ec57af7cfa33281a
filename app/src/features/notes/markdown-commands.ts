import { type ChangeSpec, EditorSelection, type EditorState, type TransactionSpec } from '@codemirror/state';

/** What a button of the editor does with what is written: a change and where the cursor is afterwards. */
export type MarkdownCommand = (state: EditorState) => TransactionSpec;

/** Puts a mark such as `**` around what is selected, or takes it away when it is there; at its end it goes on behind it. */
export function around(mark: string): MarkdownCommand {
  return (state) =>
    state.changeByRange(({ from, to }) => {
      const [before, after] = [state.sliceDoc(from - mark.length, from), state.sliceDoc(to, to + mark.length)];
      // With one star, the inner of two is no mark of its own.
      const isOuter = state.sliceDoc(from - mark.length - 1, from - mark.length) === mark[0];
      if (before === mark && after === mark && !(mark.length === 1 && isOuter))
        return {
          changes: [
            { from: from - mark.length, to: from },
            { from: to, to: to + mark.length },
          ],
          range: EditorSelection.range(from - mark.length, to - mark.length),
        };
      // Written up to its end: on behind it.
      if (from === to && after === mark) return { range: EditorSelection.cursor(to + mark.length) };
      return {
        changes: [
          { from, insert: mark },
          { from: to, insert: mark },
        ],
        range: EditorSelection.range(from + mark.length, to + mark.length),
      };
    });
}

/** Puts a start such as `- ` before each line that is selected, or takes it away when all of them have it. */
export function before(start: string): MarkdownCommand {
  return (state) => {
    const { from, to } = state.selection.main;
    const [first, last] = [state.doc.lineAt(from).number, state.doc.lineAt(to).number];
    const lines = Array.from({ length: last - first + 1 }, (_, n) => state.doc.line(first + n));
    const allHaveIt = lines.every(({ text }) => text.startsWith(start));
    const changes: ChangeSpec[] = lines.map((line) =>
      allHaveIt ? { from: line.from, to: line.from + start.length } : { from: line.from, insert: start },
    );
    return { changes };
  };
}

/** Makes a link of what is selected; what is to be written next, the address or the words, is selected then. */
export const link: MarkdownCommand = (state) => {
  const { from, to } = state.selection.main;
  const selected = state.sliceDoc(from, to);
  const isAddress = /^https?:\/\/\S+$/.test(selected);
  const [words, address] = isAddress ? ['words', selected] : [selected || 'words', 'address'];
  const next =
    isAddress || selected === '' ? [1, 1 + words.length] : [words.length + 3, words.length + 3 + address.length];
  return {
    changes: { from, to, insert: `[${words}](${address})` },
    selection: EditorSelection.range(from + (next[0] ?? 0), from + (next[1] ?? 0)),
  };
};
