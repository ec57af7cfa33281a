/** What a page says of one of its pictures. */
export interface AboutPicture {
  alt: string;
  caption: string;
  /** The words next before it, where it has no caption. */
  around: string;
  /** Of the page. */
  title: string;
}

/**
 * Runs in the page: what it says of a picture. It must not use anything from outside itself.
 *
 * @param src as the picture has it, resolved
 */
export function aboutPicture(src: string): AboutPicture {
  const tidy = (text: string | null | undefined) => (text ?? '').replace(/\s+/g, ' ').trim().slice(0, 600);
  const image = [...document.images].find((each) => each.currentSrc === src || each.src === src);
  const caption = image?.closest('figure')?.querySelector('figcaption');
  const lines = [...document.querySelectorAll('p, h1, h2, h3, h4, li')].filter(
    (each) => tidy(each.textContent).length > 20,
  );
  const isBefore = (each: Element) =>
    image !== undefined && (each.compareDocumentPosition(image) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0;
  const [next] = lines.filter((each) => !isBefore(each));
  const near = lines.filter(isBefore).at(-1) ?? next;
  return {
    alt: tidy(image?.alt),
    caption: tidy(caption?.textContent),
    around: image && near ? tidy(near.textContent) : '',
    title: tidy(document.title),
  };
}
