import { Copy } from '@dorvel/core/model';
import { termProfile, type TermProfile } from '@dorvel/core/terms';
import { plainText } from '@dorvel/core/text';

/**
 * What the text of a copy speaks of. Runs in a thread of its own: a long text takes seconds to be read and counted.
 *
 * @param record the copy as it is stored, not parsed yet: that takes its time too
 */
export default function profileOfRecord(record: string): TermProfile {
  const { tree, title, language } = Copy.parse(JSON.parse(record));
  return termProfile(plainText(tree).text, title, language);
}
