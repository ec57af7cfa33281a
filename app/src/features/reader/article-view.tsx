import { isOnWeb } from '@dorvel/core/address';
import { findAnchor } from '@dorvel/core/highlight';
import type { Highlight, Item } from '@dorvel/core/model';
import { noteText } from '@dorvel/core/notes';
import { pageOfPictures } from '@dorvel/core/picture';
import { inStage } from '@dorvel/core/queue';
import { fractionAbove, isRightToLeft, sectionsOf, wordsLeftInPart } from '@dorvel/core/text';
import {
  captureWords,
  inMinutes,
  publishedWords,
  savedWords,
  sourceOf,
  titleOf,
  whenWords,
} from '@dorvel/core/wording';
import { useRouter } from 'expo-router';
import { memo, type RefObject, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Text, View } from 'react-native';
import { ArticleBody, ArticlePresses, goInside, PiecesOutlined } from '@/article/article-body';
import { placeAtHighlight } from '@/article/at-highlight';
import { useInParts } from '@/article/progressive-rendering';
import { readyTree } from '@/article/ready-tree';
import { useCodeColours } from '@/article/use-code-colours';
import { useFoundPlace } from '@/article/use-found-place';
import { plainTextOf } from '@/device/cache/snapshot-cache';
import { useHighlightsOf, useNotesOf } from '@/device/store/library';
import type { KeptCopy } from '@/device/store/store';
import type { KnownSentence } from '@/device/workers/relate/relating';
import { ReaderEchoes } from '@/features/echoes/reader-echoes';
import { useEchoesInText } from '@/features/echoes/use-echoes-in-text';
import { LostHighlights } from '@/features/highlights/lost-highlights';
import { ReaderHighlights } from '@/features/highlights/reader-highlights';
import { useHighlightsInText } from '@/features/highlights/use-highlights-in-text';
import { moves } from '@/features/items/moves';
import { StatedFacts } from '@/features/items/stated-facts';
import { useIsSpeaking, usePlayer } from '@/features/listen/player-store';
import { KnownMarks } from '@/features/new-to-you/known-marks';
import { NewToYou } from '@/features/new-to-you/new-to-you';
import { isAllKnown } from '@/features/new-to-you/runs';
import { useKnownInText } from '@/features/new-to-you/use-known-in-text';
import { AboutPictures } from '@/features/pictures/about-pictures';
import { PictureView, type Shown } from '@/features/pictures/picture-view';
import { beforePicture, useFoundPieces, usePlacedWords } from '@/features/pictures/use-found-words';
import { RelatedItems } from '@/features/related/related-items';
import { readingStyle, useReadingSettings } from '@/features/settings/reading-settings-store';
import type { Tab } from '@/navigation/tabs';
import { useWayBack } from '@/navigation/way-back';
import { Button } from '@/ui/button';
import { useFocusOnOpening } from '@/ui/follow-focus';
import { useWide } from '@/ui/wide';
import { ContentsBeside, ContentsSheet } from './contents-sheet';
import { FindInArticle } from './find-in-article';
import { FootnoteSheet } from './footnote-sheet';
import { Margin } from './margin';
import { Rail } from './rail';
import { useReaderRoom } from './reader-room';
import { TidySuggestion } from './tidy-suggestion';
import { useMarginWidth } from './use-margin-width';
import { usePages } from './use-pages';
import { useReadingPlace } from './use-reading-place';
import { useVoiceInText } from './use-voice-in-text';

interface ArticleViewProps {
  item: Item;
  /** The copy as it is read, without what the reader took out. */
  copy: KeptCopy;
  /** The copy with all its blocks. */
  original: KeptCopy;
  tab: Tab;
  /** Where in the text something was found, to be opened there. */
  at: string | undefined;
  /** The picture that is seen large: it stays so when another copy comes, as one with its words does. */
  picture: Shown | null;
  onPicture(picture: Shown | null): void;
  /** Filled with what tells where the eyes are, for the voice to begin there. */
  placeRef: RefObject<(() => number) | null>;
  /** What is open beside the text: its contents, finding in it, or where else its words stand. */
  aside: 'contents' | 'find' | 'echoes' | null;
  onAsideDone(): void;
  /** Tells the head of the reader how many minutes are left, of the whole and of the part. */
  onMinutesLeft(words: string, ofPart: string): void;
  /** After a decision at the end, back to the list. */
  onDecided(): void;
}

const NO_MARKS: readonly Highlight[] = [];
const NO_SENTENCES: readonly KnownSentence[] = [];

/** The text itself: front matter, article, what to do at the end, what is related, and the rail beside it. */
export const ArticleView = memo(function ArticleView({
  item,
  copy,
  original,
  tab,
  at,
  picture,
  onPicture,
  placeRef,
  aside,
  onAsideDone,
  onMinutesLeft,
  onDecided,
}: ArticleViewProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const article = useRef<HTMLDivElement>(null);
  const holder = useRef<HTMLDivElement>(null);
  const settings = useReadingSettings();
  const { move, begin } = moves;
  const speaking = useIsSpeaking(item.id);
  const { flow } = settings;
  const { plain, starts } = plainTextOf(copy);
  const { text } = plain;
  const saved = item.progress.position?.value ?? null;
  const start = useMemo(() => (saved ? findAnchor(plain, starts, saved) : 0), [plain, starts]); // eslint-disable-line react-hooks/exhaustive-deps -- where it stood when the text was opened; later positions come from this screen
  const ready = readyTree(copy.tree);
  useFocusOnOpening(scroller);
  const wide = useWide();
  const hasContents = useReaderRoom(({ beside, whole: isWhole }) => beside === 'contents' && !isWhole) && wide;
  const needsAll = at !== undefined || aside !== null || hasContents || flow === 'pages' || speaking;
  const { parts: set, shown, whole } = useInParts(ready, start, needsAll);
  const on = {
    begun: () => {
      if (inStage(item, 'inbox')) void begin(item);
    },
    moved: (offset: number) => {
      const { hearing, moveTo } = usePlayer.getState();
      if (hearing?.itemId === item.id) moveTo(offset);
    },
  };
  const opened = { item, copy, start, shown, carried: speaking, on };
  const { place: reading, seen } = useReadingPlace(scroller, article, opened);
  const { fraction, canGoBack, readOnTo } = seen;
  const { away, returnToVoice } = useVoiceInText(scroller, article, item.id, reading);
  const marks = useHighlightsInText(article, text, useHighlightsOf(item.id) ?? NO_MARKS, shown);
  const echoes = useEchoesInText(article, item, copy.id, text, shown);
  const known = useKnownInText(article, item, copy, shown);
  const { passedOver } = known;
  const sentencesPassedOver = passedOver ? known.sentences : NO_SENTENCES;
  useEffect(() => usePlayer.getState().passOver(copy.id, sentencesPassedOver), [copy.id, sentencesPassedOver]);
  const pictureWords = usePlacedWords(item, copy, text);
  const pieces = useFoundPieces(pictureWords, at);
  useFoundPlace(
    reading,
    article,
    placeAtHighlight(at, marks),
    (offset) => beforePicture(pictureWords, offset) ?? offset,
  );
  useCodeColours(article, copy.tree, shown);
  const isMarked = useCallback(
    (offset: number) => marks.some(({ placed }) => placed && placed.start <= offset && offset < placed.end),
    [marks],
  );
  const isOther = useCallback(
    (offset: number) => isMarked(offset) || echoes.some(({ start, end }) => start <= offset && offset < end),
    [isMarked, echoes],
  );
  const onTurn = useCallback(() => reading.touched('move'), [reading]);
  const skips = useCallback(
    (from: number, to: number) => isAllKnown(text, sentencesPassedOver, from, to),
    [text, sentencesPassedOver],
  );
  const foot = usePages(scroller, article, {
    on: flow === 'pages',
    rightToLeft: isRightToLeft(copy.language),
    onTurn,
    skips,
  });
  const { width: margin, centred, free } = useMarginWidth(holder, article, flow !== 'pages');
  const notes = useNotesOf(item.id);
  const [openEcho, setOpenEcho] = useState<number | null>(null);
  const [openHighlight, setOpenHighlight] = useState<string | null>(null);
  const [footnoteId, setFootnoteId] = useState<string | null>(null);
  const presses = useMemo(
    () => ({ openFootnote: setFootnoteId, openPicture: onPicture, leave: reading.leave }),
    [reading, onPicture],
  );
  useEffect(() => {
    placeRef.current = reading.offset;
    return () => void (placeRef.current = null);
  }, [placeRef, reading]);
  const parts = useMemo(() => sectionsOf(plain, starts), [plain, starts]);
  const minutes = item.capture.page?.minutes ?? 0;
  const left = fraction >= 1 ? 'at the end' : `${inMinutes(minutes * (1 - fraction))} left`;
  const ofPart = starts.length === 0 ? 0 : wordsLeftInPart(parts, fraction) / starts.length;
  const leftInPart = parts.length > 1 && ofPart > 0 ? `${inMinutes(minutes * ofPart)} in this part` : '';
  useEffect(() => onMinutesLeft(left, leftInPart), [left, leftInPart, onMinutesLeft]);
  const style = useMemo(() => readingStyle(settings), [settings]);
  const wayBack = useWayBack(({ way }) => (way?.toItemId === item.id ? way : null));
  const router = useRouter();
  const offered = away
    ? { label: 'Back to the voice', go: returnToVoice }
    : readOnTo !== null
      ? { label: 'Go on where you read on another device', go: reading.goElsewhere }
      : canGoBack
        ? { label: 'Back to where you were', go: reading.goBack }
        : wayBack
          ? {
              label: `Back to “${wayBack.from.title.slice(0, 40)}”`,
              go: () => {
                useWayBack.getState().take(null);
                router.navigate(wayBack.from.href);
              },
            }
          : null;
  const decide = (stage: 'finished' | 'kept') => {
    void move(item, stage);
    onDecided();
  };
  const contents = {
    parts,
    minutes,
    offset: reading.offset(),
    onGo: (offset: number) => {
      onAsideDone();
      const to = fractionAbove(starts, offset);
      if (speaking) usePlayer.getState().speakFrom(to);
      else reading.goTo(to);
    },
  };
  return (
    <View className="min-h-0 flex-1 flex-row">
      {hasContents && <ContentsBeside {...contents} />}
      <View className="min-h-0 min-w-0 flex-1">
        {aside === 'find' && <FindInArticle place={reading} article={article} text={text} onClose={onAsideDone} />}
        <div
          ref={scroller}
          className={flow === 'pages' ? 'reader-scroll paged' : 'reader-scroll'}
          role="region"
          aria-label="Article"
          // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reachable by keyboard
          tabIndex={0}
          data-testid="reader"
        >
          <div
            ref={holder}
            className="reader-content"
            style={{
              ...(margin > 0 ? { paddingRight: 46 + margin } : {}),
              ...(centred ? { paddingLeft: 46 + margin } : {}),
            }}
          >
            <FrontMatter item={item} copy={copy} style={style} />
            <TidySuggestion item={item} copy={original} />
            <NewToYou item={item} known={known} />
            <ArticlePresses value={presses}>
              <div className="beside-text">
                <PiecesOutlined value={pieces}>
                  <ArticleBody ref={article} parts={set} language={copy.language} style={style} />
                </PiecesOutlined>
                <KnownMarks
                  article={article}
                  item={item}
                  tab={tab}
                  text={text}
                  known={known}
                  shown={shown}
                  isTaken={isOther}
                />
                {margin > 0 && (
                  <Margin
                    article={article}
                    width={margin}
                    free={free}
                    echoes={echoes}
                    marks={marks}
                    notes={notes}
                    tree={copy.tree}
                    shown={shown}
                    onFootnote={setFootnoteId}
                    onEcho={setOpenEcho}
                    onHighlight={setOpenHighlight}
                  />
                )}
              </div>
            </ArticlePresses>
            {whole && (
              <>
                <AboutPictures item={item} copy={copy} />
                <View className="mx-auto mt-[36px] w-full max-w-[560px] gap-[12px] border-t border-line pt-[22px]">
                  <Text className="font-ui text-base text-soft">
                    {item.choices.finishedAt.value === null ? 'That is the end of it.' : 'You have finished this one.'}
                  </Text>
                  {item.choices.finishedAt.value === null && (
                    <Button label="Finished" kind="main" onPress={() => decide('finished')} />
                  )}
                  {item.choices.stage.value !== 'kept' && (
                    <Button label="Keep for reference" onPress={() => decide('kept')} />
                  )}
                </View>
                <LostHighlights marks={marks} />
                <RelatedItems item={item} copy={copy} tab={tab} />
              </>
            )}
          </div>
        </div>
        <Rail
          minutes={minutes}
          furthest={item.progress.furthest}
          heard={item.progress.heard}
          fraction={fraction}
          knots={marks.flatMap(({ placed }) => (placed ? placed.start / text.length : []))}
          label={`${inMinutes(minutes)}, ${left}`}
          onMove={(to) => {
            if (speaking) usePlayer.getState().speakFrom(to);
            else reading.goTo(to);
          }}
        />
        <ReaderHighlights
          article={article}
          item={item}
          copy={copy}
          text={text}
          marks={marks}
          place={reading.offset}
          openId={openHighlight}
          onOpen={setOpenHighlight}
        />
        <ReaderEchoes
          article={article}
          item={item}
          tab={tab}
          echoes={echoes}
          place={reading}
          isTaken={isMarked}
          pressed={openEcho}
          onPress={setOpenEcho}
          asked={aside === 'echoes'}
          onDone={onAsideDone}
        />
        {foot > 0 && <View className="absolute bottom-0 left-0 right-[44px] bg-ground" style={{ height: foot }} />}
        {offered && (
          <View className="absolute bottom-[12px] left-0 right-[44px] items-center">
            <Button label={offered.label} onPress={offered.go} />
          </View>
        )}
        {aside === 'contents' && <ContentsSheet {...contents} onClose={onAsideDone} />}
        {footnoteId && (
          <FootnoteSheet
            tree={copy.tree}
            id={footnoteId}
            style={style}
            onGo={() => {
              setFootnoteId(null);
              if (article.current) goInside(article.current, footnoteId, reading.leave);
            }}
            onClose={() => setFootnoteId(null)}
          />
        )}
        {picture && (
          <PictureView
            {...picture}
            item={item}
            source={sourceOfPicture(item, copy)}
            words={pictureWords}
            pieces={pieces}
            onShow={onPicture}
            onClose={() => onPicture(null)}
          />
        )}
      </View>
    </View>
  );
});

/** The page that an open picture is from, as far as it is on the web. */
function sourceOfPicture({ address, capture }: Item, { tree }: KeptCopy): string | null {
  const isPicture = (capture.page?.pictures.length ?? 0) > 0;
  const page = (isPicture ? pageOfPictures(tree) : null) ?? address;
  return isOnWeb(page) ? page : null;
}

function FrontMatter({ item, copy, style }: { item: Item; copy: KeptCopy; style: Record<string, string> }) {
  const { page } = item.capture;
  const isEarlier = page !== null && page.copyId !== copy.id;
  const dates = [publishedWords(item), savedWords(item)].filter(Boolean).join(' · ');
  return (
    <div className="front-matter" style={style} dir={isRightToLeft(copy.language) ? 'rtl' : 'ltr'}>
      <h1 lang={copy.language ?? undefined}>{titleOf(item)}</h1>
      <p>
        {page && page.authors.length > 0 ? `${page.authors.join(', ')} · ` : ''}
        {isOnWeb(item.address) ? (
          <a href={item.address} target="_blank" rel="noreferrer noopener">
            {sourceOf(item)}
          </a>
        ) : (
          sourceOf(item)
        )}
      </p>
      <p>
        <bdi>
          {dates} · {inMinutes(page?.minutes ?? 0)}
          {page?.licenceUrl && (
            <>
              {' · '}
              <a href={page.licenceUrl} target="_blank" rel="license noreferrer noopener">
                its licence
              </a>
            </>
          )}
        </bdi>
      </p>
      {isEarlier && (
        <p className="note">
          <bdi>This is the copy made {whenWords(copy.madeAt)}; there is a later one.</bdi>
        </p>
      )}
      {item.capture.goneSince !== null && (
        <p className="warning">
          <bdi>
            The page is gone, seen {whenWords(item.capture.goneSince)}. This copy was made {whenWords(copy.madeAt)}.
          </bdi>
        </p>
      )}
      {page && !isEarlier && page.cameThrough.verdict !== 'whole' && (
        <p className="warning">
          <bdi>{captureWords(item.capture)}</bdi>
        </p>
      )}
      <NotesOnItem itemId={item.id} />
      {page && <StatedFacts facts={page.facts} />}
    </div>
  );
}

/** What the reader wrote on the whole of it. */
function NotesOnItem({ itemId }: { itemId: string }) {
  const notes = [...useNotesOf(itemId).values()]
    .filter(({ on, choices }) => on.kind === 'item' && choices.task.value === 'none')
    .sort((a, b) => a.madeAt - b.madeAt);
  return notes.map((note) => (
    <p key={note.id} className="own-note">
      {noteText(note)}
    </p>
  ));
}
