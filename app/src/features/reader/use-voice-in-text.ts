import { type RefObject, useCallback, useEffect, useRef, useState } from 'react';
import type { ReadingPlace } from '@/article/reading-place';
import { boxOfRange, rangeOfText } from '@/article/text-geometry';
import { usePlayer } from '@/features/listen/player-store';

/** The part of the screen in which the spoken sentence is left where it is. */
const BAND = { top: 0.1, bottom: 0.72 } as const;
/** Where its first line is brought when it has left the band. */
const BROUGHT_TO = 0.22;

interface VoiceInText {
  /** The voice is reading this text, now. */
  speaking: boolean;
  /** The reader has scrolled away from the voice. */
  away: boolean;
  /** Scrolls back to the voice, and follows it again. */
  returnToVoice(): void;
}

/**
 * Shows the sentence that is being spoken in the text, and scrolls along with it until the reader scrolls away.
 *
 * @param place told where the voice is while it speaks, and where it falls silent: there the eyes go on
 */
export function useVoiceInText(
  scroller: RefObject<HTMLElement | null>,
  article: RefObject<HTMLElement | null>,
  itemId: string,
  place: ReadingPlace,
): VoiceInText {
  const here = usePlayer((state) => state.hearing?.itemId === itemId);
  const sentence = usePlayer((state) => (here ? state.hearing?.spoken[state.index] : undefined));
  const playing = usePlayer((state) => state.playing);
  const moved = usePlayer((state) => state.moved);
  const [away, setAway] = useState(false);
  const speaking = here && playing;
  const shown = here && (playing || !moved) ? sentence : undefined;

  useEffect(() => {
    if (!article.current || !shown || !('highlights' in CSS)) return undefined;
    const range = rangeOfText(article.current, shown.start, shown.end);
    if (range) CSS.highlights.set('spoken', new Highlight(range));
    return () => void CSS.highlights.delete('spoken');
  }, [article, shown]);

  // The word, where the voice tells it: looked for at each frame, so that it costs nothing out of sight.
  useEffect(() => {
    const text = article.current;
    if (!speaking || !text || !('highlights' in CSS)) return undefined;
    let shownStart = -1;
    let frame = requestAnimationFrame(function look() {
      frame = requestAnimationFrame(look);
      const word = usePlayer.getState().spokenWord();
      if ((word?.start ?? -1) === shownStart) return;
      shownStart = word?.start ?? -1;
      const range = word && rangeOfText(text, word.start, word.end);
      if (range) CSS.highlights.set('spoken-word', new Highlight(range));
      else CSS.highlights.delete('spoken-word');
    });
    return () => {
      cancelAnimationFrame(frame);
      CSS.highlights.delete('spoken-word');
    };
  }, [article, speaking]);

  useEffect(() => {
    if (speaking && sentence) place.follow(sentence.start);
  }, [speaking, sentence, place]);

  useEffect(() => {
    const view = scroller.current;
    const text = article.current;
    if (!speaking || away || !sentence || !view || !text) return;
    const box = boxOfRange(text, sentence.start, sentence.end);
    const seen = view.getBoundingClientRect();
    if (!box || (box.top >= seen.top + BAND.top * seen.height && box.bottom <= seen.top + BAND.bottom * seen.height))
      return;
    const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
    view.scrollBy({
      top: box.top - seen.top - BROUGHT_TO * seen.height,
      behavior: still ? 'instant' : 'smooth',
    });
  }, [scroller, article, speaking, away, sentence]);

  // The voice falls silent, or jumps while it is: the place of the eyes is where it stands then.
  const stood = useRef(sentence);
  useEffect(() => {
    if (speaking) {
      stood.current = undefined;
      return;
    }
    const { hearing, ended } = usePlayer.getState();
    if (hearing && shown && shown !== stood.current) {
      place.rest(ended ? hearing.plain.text.length : shown.start);
      setAway(false);
    }
    stood.current = shown;
  }, [speaking, shown, place]);

  useEffect(() => {
    const view = scroller.current;
    if (!view || !speaking) return undefined;
    const leave = () => setAway(true);
    const keyed = (event: KeyboardEvent) => {
      if (/^(?:Arrow(?:Up|Down)|Page|Home|End| )/.test(event.key)) leave();
    };
    view.addEventListener('wheel', leave, { passive: true });
    view.addEventListener('touchmove', leave, { passive: true });
    view.addEventListener('keydown', keyed);
    return () => {
      view.removeEventListener('wheel', leave);
      view.removeEventListener('touchmove', leave);
      view.removeEventListener('keydown', keyed);
    };
  }, [scroller, speaking]);

  return { speaking, away: speaking && away, returnToVoice: useCallback(() => setAway(false), []) };
}
