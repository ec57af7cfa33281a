import { anchorAt } from '@dorvel/core/highlight';
import { type Activity, joinSpans, spanOf, type Spans, type TextAnchor } from '@dorvel/core/model';
import { beginSession, hearOn, type ReadingSession } from '@dorvel/core/reading';
import { fractionAbove, type PlainText } from '@dorvel/core/text';

/** Where what has been heard is written down. */
export interface ListeningRecordParts {
  now(): number;
  newId(): string;
  dayOf(instant: number): string;
  recordProgress(itemId: string, furthest: number, position: TextAnchor, heard: Spans): Promise<void>;
  recordActivity(activity: Activity): Promise<void>;
}

/** A text that is being heard, with how far its item had been read before. */
interface HeardText {
  itemId: string;
  furthest: number;
  plain: PlainText;
  starts: readonly number[];
}

/** A change of the place every few seconds is enough while the voice goes on; pausing records it exactly. */
const RECORD_EVERY_MS = 5000;

export type ListeningRecord = ReturnType<typeof createListeningRecord>;

/** Records where the voice is, what went by ear and the time that it took, of one text after another. */
export function createListeningRecord(parts: ListeningRecordParts) {
  let text: HeardText | null = null;
  let session: ReadingSession | null = null;
  let heardSince: Spans = [];
  let furthest = 0;
  let recordedAt = 0;
  let recordedOffset = -1;
  return {
    begin(heard: HeardText) {
      const now = parts.now();
      const { itemId } = heard;
      text = heard;
      session = beginSession({ id: parts.newId(), itemId, day: parts.dayOf(now), by: 'ears' }, now, 0);
      heardSince = [];
      furthest = heard.furthest;
      recordedOffset = -1;
    },
    /** A sentence was heard to its end, in this many seconds. */
    heard({ start, end }: { start: number; end: number }, seconds: number) {
      if (!text || !session) return;
      const [from, to] = [fractionAbove(text.starts, start), fractionAbove(text.starts, end)];
      // The title that is said before a text has no part in it.
      if (to > from) heardSince = joinSpans(heardSince, spanOf(from, to));
      furthest = Math.max(furthest, to);
      session = hearOn(session, parts.now(), seconds, Math.round((to - from) * text.starts.length));
    },
    /** True when the place was recorded so long ago that it is time again. */
    isDue: () => parts.now() - recordedAt >= RECORD_EVERY_MS,
    /** The voice is at an offset of the text. */
    at(offset: number) {
      if (!text || !session || (offset === recordedOffset && heardSince.length === 0)) return;
      const position = anchorAt(text.plain, text.starts, offset);
      furthest = Math.max(furthest, position.fraction);
      void parts.recordProgress(text.itemId, furthest, position, heardSince);
      if (session.activity.seconds > 0) void parts.recordActivity(session.activity);
      heardSince = [];
      recordedAt = parts.now();
      recordedOffset = offset;
    },
    /** Nothing is heard any more. What was not recorded is not. */
    end() {
      text = null;
      session = null;
      heardSince = [];
    },
  };
}
