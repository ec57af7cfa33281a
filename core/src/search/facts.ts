import { hostOf } from '../address';
import { hasColour } from '../colour';
import {
  isTagWithin,
  type Item,
  type PictureColour,
  type PictureKind,
  type Place,
  type Stage,
  tagKey,
  tagsOf,
} from '../model';
import { kindOfItem } from '../picture';
import { liesAround } from '../place';
import { baseLanguage } from '../text';
import type { AskedKind, Filter } from './query';
import { foldWord } from './words';

/** What filters ask about: what there is to know of an item beside its words. Small, so that all of them fit in memory. */
export interface ItemFacts {
  id: string;
  stage: Stage;
  savedAt: number;
  minutes: number | null;
  furthest: number;
  isFinished: boolean;
  language: string | null;
  /** Host and site name, folded. */
  site: string;
  authors: string;
  /** Keys of its tags. */
  tags: readonly string[];
  noted: boolean;
  verdict: 'whole' | 'partial' | 'failed' | null;
  gone: boolean;
  /** Of what is nothing but pictures; null for texts. */
  picture: PictureSummary | null;
  /** Where it was saved, where that was kept. */
  place: Place | null;
}

/** What there is to know of an item's pictures. */
export interface PictureSummary {
  /** Null until they were looked at. */
  kind: PictureKind | null;
  isGrey: boolean;
  /** Of all of them. */
  colours: readonly PictureColour[];
}

/**
 * What there is to know of an item; null for one that another stands for.
 *
 * @param noted whether the reader wrote something on it
 */
export function factsOf(item: Item, noted: boolean): ItemFacts | null {
  const { choices, capture, progress } = item;
  if (capture.duplicateOf !== null) return null;
  const page = capture.page;
  return {
    id: item.id,
    stage: choices.stage.value,
    savedAt: choices.raisedAt.value,
    minutes: page?.minutes ?? null,
    furthest: progress.furthest,
    isFinished: choices.finishedAt.value !== null,
    language: page?.language?.toLowerCase() ?? null,
    site: foldAll(`${hostOf(item.address)} ${page?.siteName ?? ''}`),
    authors: foldAll(page?.authors.join(' ') ?? ''),
    tags: tagsOf(item).map(tagKey),
    noted,
    verdict: capture.state === 'failed' && page === null ? 'failed' : (page?.cameThrough.verdict ?? null),
    gone: capture.goneSince !== null,
    picture: pictureOf(item),
    place: choices.place.value,
  };
}

function pictureOf({ choices, capture: { page } }: Item): PictureSummary | null {
  if (!page || page.pictures.length === 0) return null;
  const seen = page.pictures.flatMap((each) => each.seen ?? []);
  return {
    kind: kindOfItem(choices, page.pictures),
    isGrey: seen.length > 0 && seen.every(({ isGrey }) => isGrey),
    colours: seen.flatMap(({ colours }) => colours),
  };
}

/** True when an item passes all filters. What was let go is found only where it is asked for. */
export function passes(facts: ItemFacts, filters: readonly Filter[]): boolean {
  if (facts.stage === 'let-go' && !filters.some((each) => each.kind === 'stage' && each.value === 'let-go'))
    return false;
  return filters.every((filter) => holds(facts, filter) !== filter.not);
}

function holds(facts: ItemFacts, filter: Filter): boolean {
  switch (filter.kind) {
    case 'tag':
      return facts.tags.some((tag) => isTagWithin(tag, tagKey(filter.value)));
    case 'site':
      return facts.site.includes(foldAll(filter.value));
    case 'by':
      return facts.authors.includes(foldAll(filter.value));
    case 'lang':
      return facts.language === filter.value || facts.language?.split('-')[0] === filter.value;
    case 'stage':
      return facts.stage === filter.value || (filter.value === 'finished' && facts.isFinished);
    case 'saved':
      return (
        (filter.from === null || facts.savedAt >= filter.from) &&
        (filter.before === null || facts.savedAt < filter.before)
      );
    case 'minutes': {
      if (facts.minutes === null) return false;
      const minutes = facts.minutes * (filter.paces[baseLanguage(facts.language)] ?? 1);
      return minutes >= filter.from && minutes < filter.to;
    }
    case 'colour':
      return facts.picture !== null && hasColour(facts.picture.colours, filter.wanted);
    case 'near':
      return facts.place !== null && liesAround(facts.place, filter.around);
    case 'kind':
      return facts.picture !== null && isOfKind(facts.picture, filter.value);
    case 'is':
      return isSo(facts, filter.value);
  }
}

function isOfKind({ kind, isGrey }: PictureSummary, wanted: AskedKind): boolean {
  if (wanted === 'picture') return true;
  return wanted === 'black-and-white' ? isGrey : kind === wanted;
}

function isSo(facts: ItemFacts, state: Extract<Filter, { kind: 'is' }>['value']): boolean {
  switch (state) {
    case 'finished':
      return facts.isFinished;
    case 'reading':
      return facts.furthest > 0 && !facts.isFinished;
    case 'unread':
      return facts.furthest === 0 && !facts.isFinished;
    case 'noted':
      return facts.noted;
    case 'tagged':
      return facts.tags.length > 0;
    case 'partial':
    case 'failed':
      return facts.verdict === state;
    case 'gone':
      return facts.gone;
  }
}

/** Each word folded, with what stands between them as it is: dots and hyphens of a host stay. */
function foldAll(text: string): string {
  return text.replace(/[\p{L}\p{M}\p{N}]+/gu, foldWord);
}

/** How many items have each tag, parents counted with what nests under them; most used first. */
export function tagCounts(found: readonly ItemFacts[]): { tag: string; count: number }[] {
  const counts = new Map<string, number>();
  for (const { tags } of found) {
    const withParents = new Set(
      tags.flatMap((tag) => {
        const parts = tag.split('/');
        return parts.map((_, at) => parts.slice(0, at + 1).join('/'));
      }),
    );
    for (const tag of withParents) counts.set(tag, (counts.get(tag) ?? 0) + 1);
  }
  return [...counts]
    .map(([tag, count]) => ({ tag, count }))
    .sort((a, b) => b.count - a.count || (a.tag < b.tag ? -1 : 1));
}
