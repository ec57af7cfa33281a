import { type ComponentType, useEffect, useState } from 'react';
import { Text, View } from 'react-native';
import { Field } from '@/ui/field';
import type { MarkdownEditorProps } from './markdown-editor';

type Editor = ComponentType<MarkdownEditorProps>;
let known: Editor | null = null;

/** Brings what the field is made with, so that a note can be begun at once. @returns null when it cannot be had */
export async function bringEditor(): Promise<Editor | null> {
  try {
    known ??= (await import('./markdown-editor')).MarkdownEditor;
  } catch (_offlineAtFirst) {
    // It is tried again the next time; a plain field does until then.
  }
  return known;
}

/** A field for Markdown. What it is made with comes when it is first needed; where it cannot, a plain field does. */
export function WritingField(props: MarkdownEditorProps) {
  const [editor, setEditor] = useState<{ of: Editor | null; missing: boolean }>({
    of: known,
    missing: false,
  });
  useEffect(() => {
    if (known) return undefined;
    let wanted = true;
    void bringEditor().then((of) => {
      if (wanted) setEditor({ of, missing: of === null });
    });
    return () => void (wanted = false);
  }, []);
  if (editor.missing) {
    const { label, value, onChangeText, onBlur, autoFocus } = props;
    return (
      <Field
        label={label}
        value={value}
        onChangeText={onChangeText}
        {...(onBlur ? { onBlur } : {})}
        {...(autoFocus ? { autoFocus } : {})}
        multiline
      />
    );
  }
  return (
    <View className="gap-[6px]">
      <Text className="font-ui text-base font-semibold text-ink">{props.label}</Text>
      {editor.of ? <editor.of {...props} /> : <View aria-busy className="h-[206px]" />}
    </View>
  );
}
