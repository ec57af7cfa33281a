import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { markdown } from '@codemirror/lang-markdown';
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import { EditorState } from '@codemirror/state';
import { EditorView, keymap } from '@codemirror/view';
import { tags } from '@lezer/highlight';
import Bold from 'lucide-react/dist/esm/icons/bold.mjs';
import Heading from 'lucide-react/dist/esm/icons/heading.mjs';
import Italic from 'lucide-react/dist/esm/icons/italic.mjs';
import Link from 'lucide-react/dist/esm/icons/link.mjs';
import List from 'lucide-react/dist/esm/icons/list.mjs';
import Quote from 'lucide-react/dist/esm/icons/text-quote.mjs';
import { useEffect, useRef } from 'react';
import { Icon } from '@/ui/icon';
import { around, before, link, type MarkdownCommand } from './markdown-commands';

export interface MarkdownEditorProps {
  label: string;
  /** What it begins with; what is written afterwards is told by `onChangeText`. */
  value: string;
  onChangeText(value: string): void;
  onBlur?(): void;
  autoFocus?: boolean;
}

const BUTTONS: readonly { name: string; icon: typeof Bold; command: MarkdownCommand; key?: string }[] = [
  { name: 'Bold', icon: Bold, command: around('**'), key: 'Mod-b' },
  { name: 'Italic', icon: Italic, command: around('*'), key: 'Mod-i' },
  { name: 'Heading', icon: Heading, command: before('## ') },
  { name: 'List', icon: List, command: before('- ') },
  { name: 'Quotation', icon: Quote, command: before('> ') },
  { name: 'Link', icon: Link, command: link, key: 'Mod-k' },
];

const LOOK = EditorView.theme({
  '&': {
    border: '1.5px solid var(--soft)',
    borderRadius: '12px',
    background: 'var(--raised)',
    color: 'var(--ink)',
  },
  '&.cm-focused': { outline: '2px solid var(--accent)', outlineOffset: '1px' },
  '.cm-scroller': { fontFamily: 'inherit', lineHeight: '1.5', maxHeight: '45vh' },
  '.cm-content': { minHeight: '140px', padding: '10px 0', caretColor: 'var(--ink)' },
  '.cm-line': { padding: '0 14px' },
});
const SHADES = syntaxHighlighting(
  HighlightStyle.define([
    { tag: tags.heading, fontWeight: '700' },
    { tag: tags.strong, fontWeight: '700' },
    { tag: tags.emphasis, fontStyle: 'italic' },
    { tag: [tags.processingInstruction, tags.url, tags.quote], color: 'var(--soft)' },
    { tag: tags.link, textDecoration: 'underline' },
    { tag: tags.monospace, fontFamily: 'monospace' },
  ]),
);

/** Where Markdown is written: its signs are set as what they mean, and there is a button for each. */
export function MarkdownEditor({ label, value, onChangeText, onBlur, autoFocus = false }: MarkdownEditorProps) {
  const frame = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(null);
  const latest = useRef({ onChangeText, onBlur });
  useEffect(() => {
    latest.current = { onChangeText, onBlur };
  });
  const first = useRef({ value, autoFocus });
  useEffect(() => {
    if (!frame.current) return undefined;
    // In a tree of its own the editor's styles come as sheets, which the page's policy lets in; as elements it would not.
    const parent = frame.current.shadowRoot ?? frame.current.attachShadow({ mode: 'open' });
    const editor = new EditorView({
      parent,
      root: parent,
      state: EditorState.create({
        doc: first.current.value,
        selection: { anchor: first.current.value.length },
        extensions: [
          history(),
          markdown(),
          SHADES,
          LOOK,
          EditorView.lineWrapping,
          EditorView.contentAttributes.of({
            'aria-label': label,
            spellcheck: 'true',
            autocapitalize: 'sentences',
          }),
          keymap.of([
            ...BUTTONS.flatMap(({ key, command }) => (key ? [{ key, run: run(command) }] : [])),
            ...historyKeymap,
            ...defaultKeymap,
          ]),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) latest.current.onChangeText(update.state.doc.toString());
          }),
          EditorView.domEventHandlers({ blur: () => latest.current.onBlur?.() }),
        ],
      }),
    });
    view.current = editor;
    // A sheet that opens gives the focus to its first button, a moment after this is on screen.
    const later = first.current.autoFocus ? requestAnimationFrame(() => editor.focus()) : 0;
    return () => {
      cancelAnimationFrame(later);
      editor.destroy();
      view.current = null;
    };
  }, [label]);
  const press = (command: MarkdownCommand) => {
    if (!view.current) return;
    run(command)(view.current);
    view.current.focus();
  };
  return (
    <div className="markdown-editor">
      <div role="toolbar" aria-label="How the words are set">
        {BUTTONS.map(({ name, icon, command }) => (
          <button
            key={name}
            type="button"
            aria-label={name}
            title={name}
            // The keyboard of a phone stays, and so does what is selected.
            onPointerDown={(event) => event.preventDefault()}
            onClick={() => press(command)}
          >
            <Icon of={icon} tone="ink" size={19} />
          </button>
        ))}
      </div>
      <div ref={frame} />
    </div>
  );
}

function run(command: MarkdownCommand): (view: EditorView) => boolean {
  return (view) => {
    view.dispatch(command(view.state), { userEvent: 'input', scrollIntoView: true });
    return true;
  };
}
