import { picturesInText } from '@dorvel/core/dossier';
import {
  dossierBookmarks,
  dossierCsv,
  dossierLetter,
  dossierLinks,
  dossierMarkdown,
  dossierOpml,
  dossierPage,
  dossierStyle,
  shownItems,
} from '@dorvel/core/formats';
import type { DossierFormat } from '@dorvel/core/model';
import MailComposer from 'nodemailer/lib/mail-composer';
import pLimit from 'p-limit';
import type { FileStore } from '../../files/files';
import type { Library } from '../../library/library';
import type { OpenedDossier } from '../dossiers';
import { type BookText, eBook } from './e-book';
import { type DocumentPicture, documentPicture } from './pictures';
import { references } from './references';
import { spreadsheet } from './spreadsheet';
import { wordDocument } from './word';

interface DossierFile {
  type: string;
  /** With its dot. */
  ending: string;
  content: string | Buffer;
}

const AT_ONCE = 2;
const PLAIN = 'text/plain; charset=utf-8';

interface Making {
  library: Library;
  files: FileStore;
  /** Asked now and then: false ends it. */
  isWanted(): boolean;
  /** Told how much of what takes long is done. */
  step(done: number, of: number): void;
}

/** A dossier as a file, for the reader's own use. */
export async function dossierFile(
  { handedOn, withFacts, pictures }: OpenedDossier,
  format: DossierFormat,
  { library, files, isWanted, step }: Making,
): Promise<DossierFile> {
  const prepared = (hashes: ReadonlySet<string>) => preparedPictures(hashes, { files, isWanted, step });
  switch (format) {
    case 'docx': {
      const content = await wordDocument(handedOn, await prepared(pictures));
      return {
        type: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
        ending: '.docx',
        content,
      };
    }
    case 'xlsx': {
      const content = await spreadsheet(withFacts);
      return { type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', ending: '.xlsx', content };
    }
    case 'epub': {
      const texts: BookText[] = [];
      const inTexts = new Set(pictures);
      for (const item of shownItems(handedOn.compiled)) {
        if (!isWanted()) break;
        const copyId = item.capture.page?.copyId;
        const copy = copyId ? ((await library.copy(copyId)) ?? null) : null;
        texts.push({ item, copy });
        for (const { hash } of copy ? picturesInText(copy.tree) : []) inTexts.add(hash);
      }
      return {
        type: 'application/epub+zip',
        ending: '.epub',
        content: await eBook(handedOn, texts, await prepared(inTexts)),
      };
    }
    case 'html': {
      const inside = await prepared(pictures);
      const content = dossierPage(handedOn, {
        style: { rules: dossierStyle(handedOn) },
        picture: (hash) => {
          const found = inside.get(hash);
          const type = found?.type === 'png' ? 'png' : 'jpeg';
          return found ? `data:image/${type};base64,${found.bytes.toString('base64')}` : null;
        },
      });
      return { type: 'text/html; charset=utf-8', ending: '.html', content };
    }
    case 'markdown':
      return { type: 'text/markdown; charset=utf-8', ending: '.md', content: dossierMarkdown(handedOn) };
    case 'csv':
      return { type: 'text/csv; charset=utf-8', ending: '.csv', content: dossierCsv(withFacts) };
    case 'links':
      return { type: PLAIN, ending: '.txt', content: dossierLinks(handedOn) };
    case 'bookmarks':
      return { type: 'text/html; charset=utf-8', ending: '.bookmarks.html', content: dossierBookmarks(handedOn) };
    case 'opml':
      return { type: 'text/x-opml; charset=utf-8', ending: '.opml', content: dossierOpml(handedOn) };
    case 'letter':
      return {
        type: 'message/rfc822',
        ending: '.eml',
        content: await new MailComposer(dossierLetter(handedOn)).compile().build(),
      };
    case 'bibtex':
      return {
        type: 'application/x-bibtex; charset=utf-8',
        ending: '.bib',
        content: references(shownItems(handedOn.compiled), format),
      };
    case 'ris':
      return {
        type: 'application/x-research-info-systems; charset=utf-8',
        ending: '.ris',
        content: references(shownItems(handedOn.compiled), format),
      };
    case 'csl-json':
      return {
        type: 'application/vnd.citationstyles.csl+json',
        ending: '.csl.json',
        content: references(shownItems(handedOn.compiled), format),
      };
    case 'references':
      return { type: PLAIN, ending: '.references.txt', content: references(shownItems(handedOn.compiled), format) };
  }
}

/** Pictures made ready for documents, a few at a time: they are large, and nobody waits for the last. */
async function preparedPictures(
  hashes: ReadonlySet<string>,
  { files, isWanted, step }: Omit<Making, 'library'>,
): Promise<Map<string, DocumentPicture>> {
  const found = new Map<string, DocumentPicture>();
  const few = pLimit(AT_ONCE);
  let done = 0;
  await few.map(hashes, async (hash) => {
    if (!isWanted()) return;
    const picture = await documentPicture(files, hash);
    if (picture) found.set(hash, picture);
    step((done += 1), hashes.size);
  });
  return found;
}
