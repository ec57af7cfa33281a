import { type GivenText, isPushable } from '@dorvel/core/model';
import { type ClipboardEvent, useId, useState } from 'react';
import { Text, View } from 'react-native';
import { givenOf, TEXT_FILES, TOO_LARGE } from './files';

interface GivenTextFieldProps {
  /** Told of what is given now; null for nothing. */
  onGiven(given: GivenText | null): void;
}

/** A text by hand: pasted, with its form where the clipboard has one, or a file. */
export function GivenTextField({ onGiven }: GivenTextFieldProps) {
  const id = useId();
  const [words, setWords] = useState('');
  const [says, setSays] = useState<string | null>(null);
  const give = (given: GivenText | null, about: string | null) => {
    if (given && !isPushable(given.body)) {
      onGiven(null);
      setSays(TOO_LARGE);
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
    if (!file) return;
    const read = await givenOf(file);
    if (read.ok) setWords('');
    give(read.ok ? read.given : null, read.ok ? `${file.name} is ready.` : read.says);
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
        accept={TEXT_FILES}
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
