import type { Highlight } from '@dorvel/core/model';
import { HIGHLIGHT_KIND_WORDS } from '@dorvel/core/wording';
import { Link } from 'expo-router';
import type { ReactNode } from 'react';
import { Pressable, Text, View } from 'react-native';
import { atHighlight } from '@/article/at-highlight';

interface OneMarkProps {
  highlight: Highlight;
  /** What else can be done with it, beside going to its passage. */
  children: ReactNode;
}

/** A highlight in a list: its words, the way back. */
export function OneHighlight({ highlight, children }: OneMarkProps) {
  const { kind, passage } = highlight.choices;
  return (
    <View className="min-w-0 flex-1 gap-[3px]">
      <p className="marked-words">
        <span className={`mark-sample mark-${kind.value}`}>{passage.value.exact}</span>
      </p>
      <View className="flex-row flex-wrap items-center gap-x-[16px]">
        <Text className="font-ui text-small text-soft">{HIGHLIGHT_KIND_WORDS[kind.value]}</Text>
        <Link href={`/library/${highlight.itemId}?at=${atHighlight(highlight.id)}`} asChild>
          <Pressable className="min-h-[44px] justify-center">
            <Text className="font-ui text-small text-accent underline">To the passage</Text>
          </Pressable>
        </Link>
        {children}
      </View>
    </View>
  );
}

/** Something to do with a highlight. */
export function HighlightButton(props: { label: string; highlight: Highlight; on?: boolean; onPress(): void }) {
  const start = props.highlight.choices.passage.value.exact.slice(0, 60);
  return (
    <Pressable
      role="button"
      aria-label={`${props.label} “${start}”`}
      aria-pressed={props.on}
      onPress={props.onPress}
      className="min-h-[44px] min-w-[44px] justify-center"
    >
      <Text className={`font-ui text-small underline ${props.on ? 'font-semibold text-ink' : 'text-accent'}`}>
        {props.label}
      </Text>
    </Pressable>
  );
}
