import { ArrivalSign, CameThrough, Capture, CaptureOutcome, Cause, FeedOutcome, type PageFacts } from '../model';
import { captureWords, causeWords, feedWords, signWords } from '.';

const page = (changes: object = {}) =>
  ({ pictureCount: 0, cameThrough: { verdict: 'whole', signs: [] }, ...changes }) as unknown as PageFacts;
const arrived = (missingPictures: number) => ({ code: 'arrived', missingPictures }) as const;
const failed = (changes: object) =>
  ({
    code: 'failed',
    cause: { code: 'answered', status: 503 },
    copyStays: false,
    tries: null,
    ...changes,
  }) as CaptureOutcome;

test.each<[string, CaptureOutcome, PageFacts | null]>([
  ['Came through whole.', arrived(0), page()],
  ['Came through whole, one picture.', arrived(0), page({ pictureCount: 1 })],
  ['Came through whole, 3 pictures. 2 pictures did not come through.', arrived(2), page({ pictureCount: 3 })],
  [
    'Came through in part. The page states 2,400 words; 90 came through. One picture did not come through.',
    arrived(1),
    page({
      cameThrough: { verdict: 'partial', signs: [{ code: 'shorter-than-stated', stated: 2400, came: 90 }] },
    }),
  ],
  [
    'The text did not come through. The page asks for a sign-in before it shows its text. The address is kept.',
    arrived(0),
    page({ cameThrough: { verdict: 'failed', signs: [{ code: 'sign-in' }] } }),
  ],
  ['The site answered 503. The address is kept.', failed({}), null],
  [
    'The site answered 503. That was the last of 3 tries. Your copy stays.',
    failed({ tries: 3, copyStays: true }),
    null,
  ],
  ['The site answered 503. That was the last of 1 try. The address is kept.', failed({ tries: 1 }), null],
  [
    'Fetched again, but the text did not come through. The address now leads to the front page of its site. Your copy stays.',
    { code: 'fetched-worse', came: 'nothing', signs: [], leadsElsewhere: true },
    page(),
  ],
])('an item says “%s”', (words, outcome, facts) => {
  expect(captureWords({ outcome, page: facts })).toBe(words);
});

test.each([
  [404, 'The page answered 404: it is not there.'],
  [403, 'The page answered 403: it does not let us in.'],
  [418, 'The page answered 418.'],
  [429, 'The site asked to be left alone for a while (429).'],
])('a site that answers %d is told so', (status, words) => {
  expect(causeWords({ code: 'answered', status })).toBe(words);
});

test('a feed says what its page named, and what of it stays', () => {
  const outcome: FeedOutcome = {
    code: 'failed',
    cause: { code: 'not-http' },
    onNamedPage: true,
    entriesStay: true,
  };
  expect(feedWords(outcome)).toBe(
    'The page names a feed, but: The site’s answer is not proper HTTP. What it brought before is kept.',
  );
});

/** Every code that a schema knows, with values for what it asks. */
function all(schema: { options: readonly { shape: { code: { options?: readonly string[]; value?: string } } }[] }) {
  const values = {
    scheme: 'tel:',
    most: 3,
    status: 500,
    megabytes: 4,
    seconds: 5,
    host: 'x',
    what: 'a file',
    times: 2,
    detail: 'No.',
    page: 2,
    stated: 9,
    came: 3,
    from: 2,
    missingPictures: 0,
    signs: [],
    leadsElsewhere: false,
    cause: { code: 'empty' },
    copyStays: true,
    tries: null,
    words: 'As it was.',
    count: 1,
    onNamedPage: false,
    entriesStay: false,
  };
  return schema.options.flatMap(({ shape: { code } }) =>
    (code.options ?? [code.value]).map((each) => ({
      ...values,
      came: each === 'fetched-worse' ? 'part' : 3,
      code: each,
    })),
  );
}

test('there are words for every code', () => {
  for (const [schema, say] of [
    [Cause, causeWords],
    [ArrivalSign, signWords],
    [FeedOutcome, feedWords],
    [CaptureOutcome, (outcome: CaptureOutcome) => captureWords({ outcome, page: page() })],
  ] as const)
    for (const each of all(schema))
      expect((say as (of: unknown) => string)((schema as typeof Cause).parse(each))).toMatch(/^[A-Z0-9].*[.…]$/);
});

test('what an earlier version stored as sentences is read, and says the same', () => {
  const capture = Capture.parse({
    revision: 3,
    state: 'failed',
    says: 'The site answered 503. The address is kept.',
    attempts: 1,
    nextTryAt: null,
    addressKey: 'https://x.example/',
    sameAs: '01900000-0000-7000-8000-000000000001',
    page: null,
  });
  expect(captureWords(capture)).toBe('The site answered 503. The address is kept.');
  expect(capture).not.toHaveProperty('says');
  expect(capture).not.toHaveProperty('sameAs');
  expect(capture.duplicateOf).toBe('01900000-0000-7000-8000-000000000001');
  const came = CameThrough.parse({
    verdict: 'partial',
    reasons: ['The page says that only subscribers get all of it.', 'The page states 2,400 words; 90 came through.'],
    signs: ['paywall', 'shorter-than-stated'],
  });
  expect(came.signs.map(signWords)).toEqual([
    'The page says that only subscribers get all of it.',
    'The page states 2,400 words; 90 came through.',
  ]);
  expect(CameThrough.parse({ verdict: 'whole', reasons: [] })).toEqual({ verdict: 'whole', signs: [] });
});
