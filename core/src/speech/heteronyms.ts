import type { Claim } from './formulas';

/** A word that is written as another is, where what stands around it tells which is meant; and how it is then written for the voice. */
interface Heteronym {
  /** What it looks for: the word itself is its first group. */
  when: RegExp;
  said: string;
}

const SUBJECT =
  "(?:I|you|we|they|who|to|will|would|can|could|must|should|shall|may|might|don’t|don't|didn’t|didn't|not|never|let’s|let's|and|please)";
const BE =
  '(?:is|are|was|were|be|been|being|am|’s|’re|seems?|feels?|looks?|gets?|got|getting|came?|comes?|stays?|stood|stands?|keeps?|kept|draws?|drew|sits?|sat|lies|lay)';
const HOW = '(?:so|as|too|very|that|quite|pretty|fairly|really|how|uncomfortably|dangerously|rather)';
/** What is metal where it is called so. */
const OF_LEAD =
  'pipes?|paint|weights?|line|roof(?:s|ing)?|shot|mines?|miners?|poisoning|battery|batteries|acid|glass|keel|ballast|oxide|foil|sheets?|sheeting|solder|type|pencils?|content|levels?|flashing|sinkers?|soldiers?';
const LIVE_THINGS =
  'music|wires?|broadcasts?|shows?|bait|audience|ammunition|streams?|streaming|coverage|recordings?|album|concerts?|performances?|events?|action|data|feed|video|television|TV|radio|cattle|animals?|fish|birds?|rounds?|coals|births?|blog|sound|theatre|theater';
const MINUTE_THINGS =
  'particles?|quantit(?:y|ies)|amounts?|detail|details|fractions?|changes?|traces?|differences?|cracks?|creatures?|grains?|organisms?|print|inspection|examination|doses?|droplets?|bubbles?|crystals?';

const word = (written: string): string => `(?<![\\p{L}\\p{N}])(${written})(?![\\p{L}\\p{N}])`;
const rule = (source: string, said: string): Heteronym => ({ when: new RegExp(source, 'giu'), said });

/**
 * Where the engine's own reading of a sentence is wrong more often than not: it tells verbs from nouns, and knows neither the metal
 * nor the rope that is wound. Simple contexts, common practice; measured by bench/voice.mjs.
 */
const HETERONYMS: readonly Heteronym[] = [
  rule(`${word('lead')}(?=[ -](?:${OF_LEAD})\\b|-(?:free|acid|based))`, 'led'),
  rule(
    `(?<=\\b(?:made of|full of|of|red|white|molten|sheet|with|from|in|than|and|or|copper|tin|zinc) )${word('lead')}(?=\\s*(?:[.,;:)]|$|and\\b|or\\b|is\\b|was\\b))`,
    'led',
  ),
  rule(`(?<=^|[.!?] )${word('lead')}(?= (?:is|was|melts|poisons|pipes?)\\b)`, 'led'),
  rule(
    `(?<=(?:^|[.!?] |\\b${SUBJECT} ))${word('wind')}(?= (?:up|down|the|it|them|a|an|my|your|his|her|its|our|their|around|round|back|through|along)\\b)`,
    'wined',
  ),
  rule(
    `(?<=\\b(?:roads?|paths?|rivers?|streams?|streets?|lanes?|stairs|steps) )${word('wind')}(?= (?:up|down|around|round|through|along|between|past|into|over)\\b)`,
    'wined',
  ),
  rule(`${word('live')}(?=[ -](?:${LIVE_THINGS})\\b)`, 'lyve'),
  rule(
    `(?<=\\b(?:shown|broadcast|recorded|performed|streamed|carried|aired|went|gone|goes|going|go|played|sung|told) )${word('live')}`,
    'lyve',
  ),
  rule(`(?<=\\b(?:${SUBJECT}|people|still|do|did|where) )${word('live')}(?! (?:${LIVE_THINGS})\\b)`, 'liv'),
  rule(
    `(?<=\\b(?:${BE}|${HOW}) )${word('close')}(?= (?:to|by|enough|behind|at|together|in|up|on|friends?|that)\\b|\\s*[.,;:!?)]|$)`,
    'kloass',
  ),
  rule(
    `(?<=(?:^|[.!?] |\\b${SUBJECT} ))${word('close')}(?= (?:the|a|an|it|them|this|that|my|your|his|her|its|our|their|at|on|early|late|down|for)\\b)`,
    'cloze',
  ),
  rule(`${word('minute')}(?= (?:${MINUTE_THINGS})\\b)`, 'my newt'),
  rule(`(?<=\\bwear and )${word('tear')}`, 'tare'),
  rule(
    `(?<=\\b(?:a|the|this|that|long|small) )${word('tear')}(?= (?:in|through|along|down) (?:the|a|his|her|its|my|your|our|their)\\b(?! (?:eye|eyes|cheek|cheeks)\\b))`,
    'tare',
  ),
  rule(`${word('bow')}(?= (?:and arrows?|ties?|windows?|strings?)\\b)`, 'boe'),
  rule(`(?<=\\b(?:violin|fiddle|cello|long|cross|with a|draw the|drew the) )${word('bow')}`, 'boe'),
  rule(
    `(?<=\\b(?:a|an|the|his|her|its|my|your|their|this|that|deep|open|flesh|head|old|bad|gunshot|knife) )${word('wound')}`,
    'woond',
  ),
  rule(
    `(?<=\\b(?:was|were|been|had|has|have|he|she|it|they|I|we|you|and) )${word('wound')}(?= (?:the|a|it|them|up|down|round|around|tightly|back|in|on|along|through|her|his)\\b|\\s*[.,;])`,
    'wownd',
  ),
  rule(
    `(?<=\\b(?:I|you|we|they|and|always|usually|often|still) )${word('read')}(?= (?:every|each|daily|all the time|for pleasure|mostly|only|books|aloud to))`,
    'reed',
  ),
];

/** English words that are written alike and said in two ways. */
export function claimHeteronyms(claim: Claim): void {
  for (const { when, said } of HETERONYMS)
    claim(when, ({ 0: written }) =>
      /^\p{Lu}/u.test(written) ? said.replace(/^./, (first) => first.toUpperCase()) : said,
    );
}
