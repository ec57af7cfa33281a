import { createRequire } from 'node:module';
import path from 'node:path';
import type { FoundBlocks } from '@dorvel/core/picture';
import { createWorker, OEM, PSM, type Worker } from 'tesseract.js';

/** Languages in which words are recognised, as ISO 639-1, with what their data is called (ISO 639-2/T). */
const DATA = { en: 'eng', de: 'deu', fr: 'fra', es: 'spa' } as const;
export type ReadLanguage = keyof typeof DATA;
export const isReadLanguage = (language: string): language is ReadLanguage => Object.hasOwn(DATA, language);

let at: { language: ReadLanguage; worker: Worker } | undefined;

/** One at a time: each holds its language in memory. */
async function readerOf(language: ReadLanguage): Promise<Worker> {
  if (at?.language === language) return at.worker;
  await at?.worker.terminate();
  at = undefined;
  const name = DATA[language];
  // By the process's own folder: this is built into a file that lies elsewhere.
  const find = createRequire(path.join(process.cwd(), 'from.js'));
  const folder = path.dirname(find.resolve(`@tesseract.js-data/${name}/package.json`));
  const worker = await createWorker(name, OEM.LSTM_ONLY, {
    langPath: path.join(folder, '4.0.0_best_int'),
    cacheMethod: 'none',
    gzip: true,
  });
  // By what is around each point (Sauvola and Pietikäinen 2000): a photographed page is lighter on one side.
  await worker.setParameters({ thresholding_method: '2', user_defined_dpi: '200' });
  at = { language, worker };
  return worker;
}

/** How words are looked for: as a page of columns and paragraphs, or as words that stand anywhere. */
export type Layout = 'page' | 'scattered';
const LAYOUTS: Readonly<Record<Layout, Record<string, string>>> = {
  page: { tessedit_pageseg_mode: PSM.AUTO },
  scattered: { tessedit_pageseg_mode: PSM.SPARSE_TEXT },
};

/** Recognises the words in a picture. @param picture PNG, upright and in greys */
export async function recognise(picture: Buffer, language: ReadLanguage, layout: Layout): Promise<FoundBlocks> {
  const worker = await readerOf(language);
  await worker.setParameters(LAYOUTS[layout]);
  const { data } = await worker.recognize(picture, {}, { blocks: true, text: false });
  return (data.blocks ?? []).map(({ paragraphs }) =>
    paragraphs.map(({ lines }) =>
      lines.map(({ words }) =>
        words.map(({ text, confidence, bbox }) => ({
          text,
          sure: Math.min(100, Math.max(0, confidence)),
          left: bbox.x0,
          top: bbox.y0,
          width: bbox.x1 - bbox.x0,
          height: bbox.y1 - bbox.y0,
        })),
      ),
    ),
  );
}

/** Ends what recognises, so that a process can end. */
export async function endRecognising(): Promise<void> {
  await at?.worker.terminate();
  at = undefined;
}
