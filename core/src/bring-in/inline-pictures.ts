import render from 'dom-serializer';
import { getElementsByTagName } from 'domutils';
import { parseBookHtml } from '../formats';
import { inBase64 } from '../model';

/** Pictures that browsers show, by the endings of their files. */
const TYPES: Readonly<Record<string, string>> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  gif: 'image/gif',
  webp: 'image/webp',
};
/** A page that is given may have no more with its pictures; see MAX_PUSHED_SIZE. In characters. */
const MOST = 4_500_000;

/** Whether a file is a picture that can go into a page. */
export const isPicture = (path: string): boolean => /\.(?:png|jpe?g|gif|webp)$/i.test(path);

/**
 * A page with the pictures that come along with it inside of it (RFC 2397), as far as there is room; those that stay out keep their
 * addresses.
 *
 * @param url where the page is from, for the addresses of its pictures
 * @param pictureAt the bytes of the picture at a whole address, if it came along
 */
export function withPicturesInside(
  html: string,
  url: string,
  pictureAt: (address: string) => Uint8Array | undefined,
): string {
  const document = parseBookHtml(html);
  let room = MOST - html.length;
  let isChanged = false;
  for (const image of getElementsByTagName('img', document, true)) {
    const { src } = image.attribs;
    if (src === undefined || !URL.canParse(src, url)) continue;
    const address = new URL(src, url).href;
    const bytes = pictureAt(address);
    const type = TYPES[/\.(\w+)(?:[?#].*)?$/.exec(address)?.[1]?.toLowerCase() ?? ''] ?? 'image/png';
    const size = bytes ? Math.ceil(bytes.length / 3) * 4 : 0;
    if (!bytes || size > room) continue;
    room -= size;
    isChanged = true;
    image.attribs.src = `data:${type};base64,${inBase64(bytes)}`;
    Reflect.deleteProperty(image.attribs, 'srcset');
  }
  return isChanged ? render(document, { encodeEntities: 'utf8' }) : html;
}
