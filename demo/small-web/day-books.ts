import type { WebArticle } from './articles';

/**
 * Short pages of four columns, made from sentences of our own: what a reader of two years has saved, and nobody reads again.
 * The same at every start: each is a function of its number.
 */
export interface DayBookPage {
  slug: string;
  host: DayBookHost;
  daysAgo: number;
}

const HOSTS = ['daylog', 'hide', 'toolbench', 'nightwatch'] as const;
type DayBookHost = (typeof HOSTS)[number];

const DAY_BOOK_NAMES: Readonly<Record<DayBookHost, string>> = {
  daylog: 'The Day Log',
  hide: 'Notes from the Hide',
  toolbench: 'The Tool Bench',
  nightwatch: 'Night Watch',
};

/** Two years, in days, and how many pages of them she saved. */
export const DAY_BOOK_DAYS = 730;
export const DAY_BOOK_PAGES = 200;
/** So many of each column stand in its feed, one every few days; she follows them and has saved none of these. */
export const DAY_BOOK_ENTRIES = 60;
const DAYS_BETWEEN_ENTRIES = 3;

/** Numbers below one that follow from a seed (mulberry32, public domain): the demo is the same for everybody. */
export function drawFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

const WORDS = {
  who: ['Halvard', 'Ragna', 'Birgit', 'Joost', 'Teo', 'Wilma', 'Marit', 'Arne', 'Signe', 'Oda', 'Kester', 'Linnet'],
  where: [
    'the north berth',
    'Herring Row',
    'the moor road',
    'Little Sound',
    'the old quay',
    'Gannet Stack',
    'the net loft',
    'the east shingle',
    'the creek head',
    'Chapel Point',
  ],
  wind: [
    'a light westerly',
    'a hard north-easterly',
    'no wind at all',
    'a wet south wind',
    'a wind that could not decide',
  ],
  cargo: [
    'eleven bicycles',
    'a church harmonium',
    'two goats',
    'a cask of lamp oil',
    'nine sacks of rye',
    'a bandsaw',
    'forty chairs',
  ],
  bird: [
    'wren',
    'kittiwake',
    'snow bunting',
    'turnstone',
    'storm petrel',
    'corncrake',
    'eider',
    'wheatear',
    'redwing',
    'little auk',
  ],
  job: [
    'a sticking window',
    'a weeping seam',
    'a loose tiller',
    'a cracked oar',
    'a dull adze',
    'a split plank',
    'a seized block',
  ],
  tool: [
    'the small caulking iron',
    'a scraper made from a saw',
    'the spokeshave',
    'a bent nail and patience',
    'the long clamp',
    'the drawknife',
  ],
  sight: [
    'Saturn',
    'the Beehive',
    'the winter Milky Way',
    'a thin moon',
    'the Pleiades',
    'a green aurora',
    'Mars, very red',
    'the double star in the Swan',
  ],
  time: ['7.10', '9.40', 'noon', '14.20', '17.50', 'last'],
} as const;
type Slot = keyof typeof WORDS;

interface Column {
  authors: readonly string[];
  titles: readonly string[];
  sentences: readonly string[];
}

const COLUMNS: Readonly<Record<DayBookHost, Column>> = {
  daylog: {
    authors: ['The duty clerk', 'Halvard Osgood'],
    titles: [
      '{Cargo} on the {time} boat',
      '{Who} at {where}, and what came over',
      '{Who} crosses in {wind}',
      'Why the {time} waited at {where}',
      '{Number} passengers and {cargo}',
    ],
    sentences: [
      'The {time} left with {number} passengers, {cargo}, and the post.',
      'There was {wind} until the skerry and none behind it.',
      '{Who} held the boat four minutes for somebody who was seen running from {where}, and who turned out to be running for another reason.',
      'The ramp at {where} was salted twice and swept once.',
      'Lost property: one glove, left; one glove, left; a tin of something without its label.',
      '{Who} reports that the second cylinder is dragging again when she pushes against the ebb.',
      'The fare box was {number} short on Tuesday and {number} over on Thursday, which {who} says is the same as right.',
      'Two cars stayed behind at {where} because {cargo} stood where they should have stood.',
      'Nobody was sick, though {who} said that it was the day for it.',
      'The bread went over late and came back as toast, which was a joke by the time it reached {where}.',
      'A seal kept pace from {where} to the outer mark and then lost interest.',
      'The committee asks everybody once more to buy their ten-crossing card before the boat and not on it.',
    ],
  },
  hide: {
    authors: ['Linnet Grieve', 'Oda Marsh'],
    titles: [
      'A {bird} at {where}',
      '{Number} {bird}s before breakfast',
      'The {bird} that should have left {where}',
      'Counting at {where} in {wind}',
      'First {bird}, last {bird}',
    ],
    sentences: [
      'At first light there were {number} {bird}s along {where}, feeding with their backs to {wind}.',
      'The {bird} that {who} ringed two winters ago is back, a little thinner and exactly as bad-tempered.',
      'We walked from {where} to {where} and back, and counted everything twice, as one does when nobody is watching.',
      'A {bird} sang for eleven minutes from the same post, and then from the next post.',
      'There was {wind}, so the sea watch was short, and the flask was long.',
      '{Who} thinks that it was a {bird}; I think that it was a second {bird}; the notebook says both.',
      'Three nests at {where} have failed since Sunday, all on the side from which the path can be seen.',
      'Please walk on the inner path at {where} until the end of the month.',
      'A {bird} has no business here in this month, and seemed to know it.',
      'The total for the week is {number}, which is {number} fewer than last year and more than we feared.',
    ],
  },
  toolbench: {
    authors: ['Birgit Saltmarsh', 'Joost Arrowsmith'],
    titles: [
      '{Job}, and {tool}',
      'What {who} does about {job}',
      '{Who} in praise of {tool}',
      '{Who} asks about {job}',
      'A rainy day at {where}, and {job}',
    ],
    sentences: [
      'This week somebody brought in {job} and a week of opinions about it.',
      'Most of {job} is done with {tool}; the rest is done by leaving it alone until Thursday.',
      'Take off less than you think, look at it from the other end, and then take off half of that.',
      '{Who} does it with {tool}, and it would be rude to say how.',
      'If the wood squeaks, stop; if it smells of tar, go on; if it does both, call {who}.',
      'The first coat goes on thin, the second thinner, and the third is the one that people see.',
      'We have repaired {number} of these since the yard began, and the one thing they had in common was rain.',
      'Sharpen before you need to: a dull edge is a decision that somebody else made for you.',
      'A clamp is a hand that does not get tired, and {tool} is a hand that does not get bored.',
      'What it cost: {number} in bronze, nothing in oak, and an afternoon at {where}.',
    ],
  },
  nightwatch: {
    authors: ['Teo Brandvold', 'Wilma Ostrander'],
    titles: [
      '{Sight} over {where}',
      'An hour at {where}, and {sight}',
      'Cloud at {where}, and then {sight}',
      'A reading of {number} from {where}',
      'What {who} saw instead of {sight}',
    ],
    sentences: [
      'We stood at {where} from ten until the cold won, in {wind}.',
      '{Sight} came up out of the sea like something being handed to us.',
      'The meter read {number}, which is dark, and {who} read a page of the almanac by it, which is darker.',
      'Nobody needs a telescope for {sight}; a chair is more use, and a second pair of socks.',
      'The amber lamps help: from {where} the pier no longer has a dome of light over it.',
      '{Who} asked whether the stars are nearer in winter. They are not. There is only less in the way.',
      'Cloud came over at eleven, stayed until twelve, and was blamed on {who}.',
      'For next week: {sight}, low in the south, an hour after the {time} boat has put its lights out.',
      'Somebody has painted the lamp at {where} again, and somebody has scraped it clean again, and neither of them has said a word.',
    ],
  },
};

/** The pages, the newest first: about two in a week, of one column or another. */
export function dayBookPages(): DayBookPage[] {
  return Array.from({ length: DAY_BOOK_PAGES }, (_, n) => {
    const host = HOSTS[Math.floor(drawFrom(n + 1)() * HOSTS.length)] ?? 'daylog';
    return { slug: `${n + 1}`, host, daysAgo: Math.round(((n + 1) / DAY_BOOK_PAGES) * DAY_BOOK_DAYS) };
  });
}

/** The columns, as publications with a feed. */
export const DAY_BOOKS = HOSTS.map((host) => ({
  host,
  name: DAY_BOOK_NAMES[host],
  path: (slug: string) => `/d/${slug}`,
}));

/** What stands in a column's feed, the newest first. Their numbers go on where those of the saved ones end. */
export function dayBookEntries(host: string): DayBookPage[] {
  const column = HOSTS.findIndex((each) => each === host);
  const own = HOSTS[column];
  if (!own) return [];
  return Array.from({ length: DAY_BOOK_ENTRIES }, (_, n) => ({
    slug: `${1000 * (column + 1) + n}`,
    host: own,
    daysAgo: 1 + DAYS_BETWEEN_ENTRIES * n + (column % DAYS_BETWEEN_ENTRIES),
  }));
}

/** The page as an article of the small web. */
export function dayBookArticle({ slug, host, daysAgo }: DayBookPage): WebArticle {
  const draw = drawFrom(Number(slug) * 7919);
  const pick = <Each>(list: readonly Each[]): Each => {
    const one = list[Math.floor(draw() * list.length)];
    if (one === undefined) throw new Error('nothing to pick from');
    return one;
  };
  const fill = (text: string) =>
    text.replace(/\{(\w+)\}/g, (_, slot: string) => {
      if (slot.toLowerCase() === 'number') return String(3 + Math.floor(draw() * 90));
      const word = pick(WORDS[slot.toLowerCase() as Slot]);
      return slot === slot.toLowerCase() ? word : `${word.charAt(0).toUpperCase()}${word.slice(1)}`;
    });
  const { authors, titles, sentences } = COLUMNS[host];
  const left = [...sentences];
  const next = () => fill(left.splice(Math.floor(draw() * left.length), 1)[0] ?? pick(sentences));
  const paragraphs = Array.from({ length: 3 + Math.floor(draw() * 2) }, () =>
    [next(), next(), ...(draw() < 0.4 ? [next()] : [])].join(' '),
  );
  const morning = new Date();
  morning.setUTCHours(7, 0, 0, 0);
  return {
    slug,
    publication: host,
    title: fill(pick(titles)),
    author: pick(authors),
    daysAgo,
    picture: '',
    caption: '',
    standfirst: '',
    daily: false,
    recipe: false,
    event: false,
    book: false,
    video: false,
    language: '',
    markdown: paragraphs.join('\n\n'),
    publishedAt: new Date(morning.getTime() - daysAgo * 24 * 60 * 60 * 1000),
  };
}

/** As a page of its column: a log that has only itself, the days before and after, and a box to look things up. */
export function dayBookPage(article: WebArticle, html: string): string {
  const name = DAY_BOOK_NAMES[article.publication as DayBookHost];
  const published = article.publishedAt.toISOString();
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${article.title} — ${name}</title><meta property="og:site_name" content="${name}"><meta name="author" content="${article.author}"><meta property="article:published_time" content="${published}"></head><body><header><a href="/">${name}</a><form><input name="q"></form></header><main><article><h1>${article.title}</h1><p class="meta"><time datetime="${published}">${published.slice(0, 10)}</time> · ${article.author}</p>${html}</article><nav><a rel="prev" href="/d/${Number(article.slug) + 1}">The one before</a> <a rel="next" href="/d/${Number(article.slug) - 1}">The one after</a></nav></main><footer>${name} is kept by whoever is on duty.</footer></body></html>`;
}
