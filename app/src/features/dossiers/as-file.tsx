import type { DossierFormat } from '@dorvel/core/model';
import { useRef, useState } from 'react';
import { Text, View } from 'react-native';
import { handOutFile } from '@/device/cache/download-file';
import { api } from '@/device/sync/api';
import { inWords } from '@/features/elsewhere/in-words';
import { Button } from '@/ui/button';
import { useNotices } from '@/ui/notices';
import { Progress } from '@/ui/progress';
import { SectionHeading } from '@/ui/section-heading';

/** What a dossier can be taken along as, in words. */
const FORMATS: readonly { title: string; formats: readonly { format: DossierFormat; label: string }[] }[] = [
  {
    title: 'Documents',
    formats: [
      { format: 'docx', label: 'Word processor (DOCX)' },
      { format: 'epub', label: 'E-book with the texts (EPUB)' },
      { format: 'html', label: 'One web page (HTML)' },
      { format: 'markdown', label: 'Markdown' },
      { format: 'letter', label: 'Letter (EML)' },
    ],
  },
  {
    title: 'Tables',
    formats: [
      { format: 'xlsx', label: 'Spreadsheet (XLSX)' },
      { format: 'csv', label: 'CSV' },
    ],
  },
  {
    title: 'Sources',
    formats: [
      { format: 'links', label: 'List of links' },
      { format: 'bookmarks', label: 'Bookmarks' },
      { format: 'opml', label: 'Outline (OPML)' },
      { format: 'references', label: 'References' },
      { format: 'bibtex', label: 'BibTeX' },
      { format: 'ris', label: 'RIS' },
      { format: 'csl-json', label: 'CSL-JSON' },
    ],
  },
];

/** A dossier as a file, made on the server; what takes long can be stopped. */
export function AsFile({ dossierId }: { dossierId: string }) {
  const [making, setMaking] = useState<{ label: string; of: number } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const stop = useRef<AbortController | null>(null);
  const make = async (format: DossierFormat, label: string) => {
    const controller = new AbortController();
    stop.current = controller;
    setMaking({ label, of: 0 });
    setFault(null);
    try {
      const step = (done: number, of: number) => setMaking({ label, of: done / of });
      const file = await api.dossierFile(dossierId, format, step, controller.signal);
      handOutFile(file.name, file.content);
    } catch (error) {
      if (!controller.signal.aborted) setFault(inWords(error));
    }
    setMaking(null);
  };
  const copyAll = async () => {
    try {
      const { signal } = new AbortController();
      const whole = (format: DossierFormat) => api.dossierFile(dossierId, format, () => undefined, signal);
      const [html, text] = await Promise.all([whole('html'), whole('markdown')]);
      const blob = async (type: string, { content }: { content: Blob }) => new Blob([await content.text()], { type });
      await navigator.clipboard.write([
        new ClipboardItem({ 'text/html': await blob('text/html', html), 'text/plain': await blob('text/plain', text) }),
      ]);
      useNotices.getState().show({ text: 'All of it is copied, as rich text and as plain.' });
    } catch (error) {
      setFault(inWords(error));
    }
  };
  return (
    <View role="region" aria-label="As a file" className="gap-[14px]">
      <SectionHeading>As a file</SectionHeading>
      <View className="items-start">
        <Button label="Copy all of it" onPress={() => void copyAll()} />
      </View>
      {making !== null && (
        <View className="gap-[8px]">
          <View className="flex-row flex-wrap items-center gap-[12px]">
            <Text role="status" className="font-ui text-base text-ink">
              Making: {making.label}…
            </Text>
            <Button label="Stop" onPress={() => stop.current?.abort()} />
          </View>
          <Progress of={making.of} />
        </View>
      )}
      {fault !== null && (
        <Text role="alert" className="font-ui text-small text-brick">
          {fault}
        </Text>
      )}
      {FORMATS.map(({ title: heading, formats }) => (
        <View key={heading} role="group" aria-label={heading} className="gap-[8px]">
          <Text className="font-ui text-small font-semibold text-soft">{heading}</Text>
          <View className="flex-row flex-wrap gap-[8px]">
            {formats.map(({ format, label }) => (
              <Button key={format} label={label} disabled={making !== null} onPress={() => void make(format, label)} />
            ))}
          </View>
        </View>
      ))}
    </View>
  );
}
