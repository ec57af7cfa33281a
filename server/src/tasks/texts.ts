import { excerptsOf } from '@dorvel/core/echo';
import { feedsOfPage, readFeed } from '@dorvel/core/formats';
import { Copy } from '@dorvel/core/model';
import { searchTerms } from '@dorvel/core/search';
import { profileOf } from '@dorvel/core/terms';
import { plainText } from '@dorvel/core/text';
import { decodeData } from '../capture/decode';
import { articleFrom } from '../capture/inputs';
import { readLetter } from '../mail/read-mail';

/** What is done with texts from outside. Each is described where it is asked for. */
export const TEXT_TASKS = {
  extract: articleFrom,
  terms: ({ text, language }: { text: string; language: string | null }) => searchTerms(text, language).join(' '),
  feed({ body, contentType, url }: { body: Uint8Array; contentType: string; url: string }) {
    const text = decodeData(Buffer.from(body), contentType);
    const read = readFeed(text, url);
    return { read, named: read ? null : (feedsOfPage(text, url)[0]?.address ?? null) };
  },
  letter: (raw: Uint8Array) => readLetter(Buffer.from(raw)),
  profile(record: string) {
    const { tree, title, language } = Copy.parse(JSON.parse(record));
    const plain = plainText(tree);
    return { profile: profileOf(plain, title, language), excerpts: excerptsOf(plain, title, language) };
  },
};
