import 'fake-indexeddb/auto';
import { excerptsOf } from '@dorvel/core/echo';
import type { EchoesAnswer, Silenced } from '@dorvel/core/model';
import { plainText } from '@dorvel/core/text';
import type { LivePage } from '../messages';
import { echoesIn, fetchEchoes, silenceEcho } from './echoes';
import { ACCOUNT, pairedBrowser } from './fake-browser.test-data';
import { type Pairing, storage } from './storage';

const TEXT = 'The bread oven behind the net loft is fired with driftwood. A bread oven cools slowly.';
const id = (n: number) => `019a0000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const told = (n: number, address = `https://ovens.example/${n}`): EchoesAnswer['items'][number] => ({
  id: id(n),
  title: `Oven ${n}`,
  language: 'en',
  source: 'Ovens',
  address,
  stage: 'queue',
  minutes: 3,
  excerpts: excerptsOf(
    plainText({
      type: 'root',
      children: [{ type: 'element', tagName: 'p', properties: {}, children: [{ type: 'text', value: TEXT }] }],
    }),
    null,
    'en',
  ),
});

let asked: string[];
let answers: EchoesAnswer[];
let pairing: Pairing;
const answer = (change: Partial<EchoesAnswer>): EchoesAnswer => ({
  ...{ epoch: 'one', upTo: 1, hasMore: false, gone: [], items: [], silenced: [] },
  ...change,
});

beforeEach(async () => {
  await pairedBrowser();
  pairing = (await storage.pairing())!;
  asked = [];
  answers = [];
  globalThis.fetch = (url) => {
    asked.push(String(url instanceof Request ? url.url : url).replace(/^.*\/api/, ''));
    return Promise.resolve(Response.json(answers.shift() ?? answer({ upTo: 99 })));
  };
  // What was kept for the test before is taken away, as it is when a reader wants no echoes.
  await fetchEchoes();
  await storage.setSettings({ ...(await storage.settings()), echoesOn: 'all' });
});

const page = (change: Partial<LivePage> = {}): LivePage => ({
  address: 'https://elsewhere.example/a',
  title: 'A page',
  language: 'en',
  text: `Nobody has fired the bread oven since. The bread oven is cold.${' It was said again.'.repeat(60)}`,
  headings: [],
  pointedOut: [],
  ...change,
});
const found = async (of = page()) => (await echoesIn(of))?.map(({ form }) => form) ?? null;

it('marks what stands in the library too, with the passage and the way to it, and asks nobody', async () => {
  answers = [answer({ items: [told(1)] })];
  await fetchEchoes();
  expect(asked).toEqual(['/extension/echoes?after=0']);
  const [echo] = (await echoesIn(page())) ?? [];
  expect(page().text.slice(echo?.start, echo?.end)).toBe('bread oven');
  expect(echo?.items).toEqual([
    {
      ...{ title: 'Oven 1', source: 'Ovens', minutes: 3 },
      passage: 'The bread oven behind the net loft is fired with driftwood.',
      link: `https://library.example/queue/${id(1)}?at=4-14`,
    },
  ]);
  expect(asked).toHaveLength(1);
});

it('follows the library by what has changed, in as many parts as there are', async () => {
  answers = [answer({ items: [told(1)], upTo: 5, hasMore: true }), answer({ items: [told(2)], upTo: 9 })];
  await fetchEchoes();
  expect((await echoesIn(page()))?.[0]?.items).toHaveLength(2);
  answers = [answer({ gone: [id(1)], upTo: 10 })];
  await fetchEchoes();
  expect(asked).toEqual(['0', '5', '9'].map((after) => `/extension/echoes?after=${after}`));
  expect((await echoesIn(page()))?.[0]?.items.map(({ title }) => title)).toEqual(['Oven 2']);
});

it('begins anew when the library was brought back from a backup', async () => {
  answers = [answer({ items: [told(1)], upTo: 5 })];
  await fetchEchoes();
  answers = [answer({ epoch: 'two', upTo: 3 }), answer({ epoch: 'two', items: [told(2)], upTo: 3 })];
  await fetchEchoes();
  expect(asked.at(-1)).toBe('/extension/echoes?after=0');
  expect((await echoesIn(page()))?.[0]?.items.map(({ title }) => title)).toEqual(['Oven 2']);
});

it('says nothing of the page itself, on the library’s own pages, of a site that is left out, or when none are wanted', async () => {
  answers = [answer({ items: [told(1)] })];
  await fetchEchoes();
  expect(await found()).toEqual(['bread oven']);
  expect(await found(page({ address: 'https://ovens.example/1?utm_source=x' }))).toEqual([]);
  expect(await found(page({ address: 'https://library.example/queue' }))).toBeNull();
  answers = [answer({ silenced: [{ kind: 'site', host: 'ovens.example' }] })];
  await fetchEchoes();
  expect(await found()).toEqual([]);
  await storage.setSettings({ ...(await storage.settings()), echoesOn: 'none' });
  expect(await found()).toBeNull();
});

it('silences a term at once, sends it, and lets it speak again', async () => {
  answers = [answer({ items: [told(1)] })];
  await fetchEchoes();
  const [echo] = (await echoesIn(page()))!;
  const what: Silenced = { kind: 'term', key: echo!.key, form: echo!.form };
  await silenceEcho(pairing, what, true);
  expect(await found()).toEqual([]);
  const [first] = await storage.outbox.ids();
  expect(await storage.outbox.get(first!)).toMatchObject({
    accountId: ACCOUNT.id,
    mutations: [{ type: 'silence', what, silenced: true }],
  });
  await silenceEcho(pairing, what, false);
  expect(await found()).toEqual(['bread oven']);
});

it('keeps nothing once the pairing is ended or revoked', async () => {
  for (const end of [() => storage.unpair(), async () => storage.setPairing({ ...pairing, revoked: true })]) {
    await storage.setPairing(pairing);
    answers = [answer({ items: [told(1)], upTo: 5 })];
    await fetchEchoes();
    expect(await found()).toEqual(['bread oven']);
    await end();
    await fetchEchoes();
    await storage.setPairing(pairing);
    expect(await found()).toEqual([]);
  }
});

it('keeps nothing once the server does not know it any more', async () => {
  answers = [answer({ items: [told(1)], upTo: 5 })];
  await fetchEchoes();
  const problem = { type: '/problems/token', title: 'Not paired', status: 401, detail: 'Pair it again.' };
  globalThis.fetch = () =>
    Promise.resolve(Response.json(problem, { status: 401, headers: { 'content-type': 'application/problem+json' } }));
  await fetchEchoes();
  expect((await storage.pairing())?.revoked).toBe(true);
  await storage.setPairing(pairing);
  expect(await found()).toEqual([]);
});

it('keeps nothing of another account’s, and nothing at all when no echoes are wanted any more', async () => {
  answers = [answer({ items: [told(1)], upTo: 5 })];
  await fetchEchoes();
  await storage.setPairing({ ...pairing, account: { ...ACCOUNT, id: id(77) } });
  await fetchEchoes();
  expect(asked.at(-1)).toBe('/extension/echoes?after=0');
  expect(await found()).toEqual([]);
  await storage.setSettings({ ...(await storage.settings()), echoesOn: 'none' });
  await fetchEchoes();
  await storage.setSettings({ ...(await storage.settings()), echoesOn: 'all' });
  expect(await found()).toEqual([]);
});
