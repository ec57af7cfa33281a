import type { GivenText } from '@dorvel/core/model';
import { useId, useState, type ClipboardEvent } from 'react';
import { Text, View } from 'react-native';

interface GivenTextFieldProps {
  /** Told of what is given now; null for nothing. */
  onGiven(given: GivenText | null): void;
}

const TYPES: Readonly<Record<string, GivenText['type']>> = {
  html: 'text/html',
  htm: 'text/html',
  mhtml: 'multipart/related',
  mht: 'multipart/related',
  eml: 'message/rfc822',
  md: 'text/markdown',
  txt: 'text/plain',
  pdf: 'application/pdf',
};
/** As much as one change can carry. */
const LARGEST = 3_000_000;

/** A text by hand: pasted, with its form where the clipboard has one, or a file. */
export function GivenTextField({ onGiven }: GivenTextFieldProps) {
  const id = useId();
  const [words, setWords] = useState('');
  const [says, setSays] = useState<string | null>(null);
  const give = (given: GivenText | null, about: string | null) => {
    if (given && given.body.length > LARGEST) {
      onGiven(null);
      setSays('That is more than 3 MB, which is more than can be sent at once. Give a part of it.');
      return;
    }
    onGiven(given);
    setSays(about);
  };
  const paste = (event: ClipboardEvent<HTMLTextAreaElement>) => {
    const html = event.clipboardData.getData('text/html');
    if (html === '' || words !== '') return;
    event.preventDefault();
    setWords(event.clipboardData.getData('text/plain'));
    give({ type: 'text/html', body: html, encoding: 'utf8' }, 'Taken with its headings, links and lists.');
  };
  const type = (text: string) => {
    setWords(text);
    give(text.trim() === '' ? null : { type: 'text/plain', body: text, encoding: 'utf8' }, null);
  };
  const open = async (file: File | undefined) => {
    const kind = TYPES[file?.name.split('.').at(-1)?.toLowerCase() ?? ''];
    if (!file) return;
    if (!kind) {
      give(null, 'That kind of file cannot be read: give HTML, MHTML, a letter, Markdown, text or PDF.');
      return;
    }
    const isBinary = kind === 'application/pdf';
    const body = isBinary ? await inBase64(file) : await file.text();
    setWords('');
    give({ type: kind, body, encoding: isBinary ? 'base64' : 'utf8' }, `${file.name} is ready.`);
  };
  return (
    <View className="gap-[10px]">
      <label htmlFor={`${id}-text`} className="given-label">
        Paste it here
      </label>
      <textarea
        id={`${id}-text`}
        className="given-text"
        rows={6}
        value={words}
        onPaste={paste}
        onChange={(event) => type(event.target.value)}
      />
      <label htmlFor={`${id}-file`} className="given-label">
        Or choose a file
      </label>
      <input
        id={`${id}-file`}
        className="given-file"
        type="file"
        accept={Object.keys(TYPES)
          .map((ending) => `.${ending}`)
          .join()}
        onChange={(event) => void open(event.target.files?.[0])}
      />
      {says !== null && (
        <Text role="status" className="font-ui text-small text-soft">
          {says}
        </Text>
      )}
    </View>
  );
}

async function inBase64(file: File): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  let binary = '';
  for (let at = 0; at < bytes.length; at += 0x8000)
    binary += String.fromCharCode(...bytes.subarray(at, at + 0x8000));
  return btoa(binary);
}
