import type { HighlightedItem } from '@dorvel/core/formats';
import { View } from 'react-native';
import { copyMarkdown } from '@/device/cache/copy-markdown';
import { handOutText } from '@/device/cache/download-file';
import { Button } from '@/ui/button';
import { useNotices } from '@/ui/notices';

/** What is on the page, to be used elsewhere: in open formats, each passage with its source. */
export function TakeAlong({ marked, onDone }: { marked: readonly HighlightedItem[]; onDone?(): void }) {
  const show = useNotices((state) => state.show);
  const copy = async () => {
    const { highlightsAsMarkdown } = await import('@/device/formats');
    await copyMarkdown(highlightsAsMarkdown(marked));
    show({ text: 'Copied, with the sources.' });
  };
  const table = async () => {
    const { highlightsAsCsv } = await import('@/device/formats');
    handOutText('highlights.csv', 'text/csv', highlightsAsCsv(marked));
  };
  const markdown = async () => {
    const { highlightsAsMarkdown } = await import('@/device/formats');
    handOutText('highlights.md', 'text/markdown', highlightsAsMarkdown(marked));
  };
  const annotations = async () => {
    const { highlightsAsAnnotations } = await import('@/device/formats');
    const written = JSON.stringify(highlightsAsAnnotations(marked), null, 2);
    handOutText('highlights.jsonld', 'application/ld+json', written);
  };
  return (
    <View role="group" aria-label="Take along" className="flex-row flex-wrap gap-[10px]">
      <Button label="Copy all" onPress={() => void copy().then(onDone)} />
      <Button label="As Markdown" onPress={() => void markdown().then(onDone)} />
      <Button label="As web annotations" onPress={() => void annotations().then(onDone)} />
      <Button label="As CSV" onPress={() => void table().then(onDone)} />
    </View>
  );
}
