import { attributeOf, childOf, childrenOf, elementsIn, parseXml, within, xmlText } from './xml';

/** What an e-book says of itself, and its chapters in reading order. */
export interface BookPackage {
  title: string | null;
  authors: string[];
  /** BCP 47 tag. */
  language: string | null;
  /** ISO 8601, as the book states it. */
  publishedAt: string | null;
  /** Addresses of its content documents, relative to the package document. */
  chapters: string[];
}

/** Where the package document of an EPUB lies (EPUB 3.3, 4.2.6.3.1 META-INF/container.xml); null when it is not said. */
export function packagePathOf(container: string): string | null {
  const [root] = elementsIn(parseXml(container));
  const [file] = root ? within(root, 'rootfile') : [];
  return file ? attributeOf(file, 'full-path') : null;
}

/**
 * Reads the package document of an EPUB (EPUB 3.3, 5). What the reading order does not name is left out, and so is what
 * stands beside it (`linear="no"`) and the book's own table of contents.
 */
export function readBookPackage(source: string): BookPackage {
  const root = childOf(parseXml(source), 'package', 'opf:package');
  const metadata = root && childOf(root, 'metadata', 'opf:metadata');
  const manifest = root && childOf(root, 'manifest', 'opf:manifest');
  const spine = root && childOf(root, 'spine', 'opf:spine');
  const stated = (name: string) =>
    metadata ? childrenOf(metadata, `dc:${name}`).flatMap((each) => xmlText(each) ?? []) : [];
  const files = new Map(
    (manifest ? elementsIn(manifest) : []).map((item) => [
      attributeOf(item, 'id'),
      {
        address: attributeOf(item, 'href'),
        isText: /xhtml|html/.test(attributeOf(item, 'media-type') ?? ''),
        isContents: /\bnav\b/.test(attributeOf(item, 'properties') ?? ''),
      },
    ]),
  );
  const chapters = (spine ? elementsIn(spine) : []).flatMap((reference) => {
    const file = files.get(attributeOf(reference, 'idref'));
    const isBeside = attributeOf(reference, 'linear') === 'no';
    return file?.address && file.isText && !file.isContents && !isBeside ? [file.address] : [];
  });
  return {
    title: stated('title')[0] ?? null,
    authors: stated('creator'),
    language: stated('language')[0] ?? null,
    publishedAt: stated('date')[0] ?? null,
    chapters,
  };
}
