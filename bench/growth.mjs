// npm run bench -- growth [--write]: the busiest hour of a day with 10,000 and with 1,000,000 readers, as a simulation of discrete events
// (seeded: the same each time), at the rates and with the times that were measured. What breaks first when nothing is added, and how many
// of each there must be until nobody waits long. --write puts it into docs/bench/growth.md.
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import TinyQueue from 'tinyqueue';

const root = path.resolve(import.meta.dirname, '..');

/** Milliseconds, of docs/bench/database.md as it stands: a request to a Dorvel on a file, and to one on a libSQL server. */
const measured = new Map(
  readFileSync(path.join(root, 'docs/bench/database.md'), 'utf8')
    .split('\n')
    .map((line) => line.split('|').map((cell) => cell.trim()))
    .filter((cells) => Number(cells[2]) > 0)
    .map(([, what, file, server]) => [what, { file: Number(file), server: Number(server) }]),
);
const timeOf = (what) => {
  const time = measured.get(what);
  if (!time) throw new Error(`docs/bench/database.md has no row “${what}”: npm run bench -- database --write`);
  return time;
};
const [PULL, PUSH, FIND] = ['pull of nothing new', 'push of one change', 'find, two words'].map(timeOf);

/** What a reader does in a day who saves ten pages and opens the app eight times. */
const A_DAY = { pull: 400, push: 200, find: 3, 'first find': 1, capture: 10 };
/** Of a day, in its busiest hour. */
const BUSIEST = 0.1;
/** Captures: five a second on two cores (a trial with 500 pages). */
const CAPTURE_MS = 400;
const STORE_MS = 16;
/** What is found by is read once for each account that is used (2,000 items at .6 ms), in pieces between which others come on. */
const FIRST_FIND = Array.from({ length: 12 }, () => ['process', 100]);
/** Of an account that is used, 2,000 items of 25 kB each in memory (10,000 items found in and fetched: 188 → 440 MB); one in eight is used at a time. */
const ACCOUNT_MB = 2000 * 0.025;
const USED = 1 / 8;
/** Of one database among others on a libSQL server (a trial with 60). */
const NAMESPACE_MB = 0.5;
const MACHINE = { memoryMb: 16_000 };
/** Nobody waits longer than this, at the 95th part, for what is to be done at once. */
const GOOD_MS = 300;
/** Until a page has come, in milliseconds, at the 95th part. */
const GOOD_CAPTURE_MS = 10_000;

/**
 * Ways of building it. Each kind of request goes through stations, one after the other, so many milliseconds at each. What a
 * request takes on a libSQL server beyond what it takes on a file is taken to be the server's; `alone` cannot be more than one.
 */
const beyond = ({ file, server }) => Math.max(0.5, server - file);
const spread = {
  pull: [['process', PULL.file], ['database', beyond(PULL)]],
  push: [['process', PUSH.file], ['database', beyond(PUSH)]],
  find: [['process', FIND.file], ['database', beyond(FIND)]],
  'first find': FIRST_FIND,
  capture: [['capture', CAPTURE_MS], ['process', 2], ['database', STORE_MS]],
}; // prettier-ignore
const writerApart = (way) => {
  const kinds = { ...way };
  for (const kind of ['push', 'capture'])
    kinds[kind] = way[kind].map(([station, ms]) => [station === 'database' ? 'writer' : station, ms]);
  return kinds;
};
const WAYS = {
  'one process, one file': {
    kinds: {
      pull: [['process', PULL.file]],
      push: [['process', PUSH.file]],
      find: [['process', FIND.file]],
      'first find': FIRST_FIND,
      capture: [['capture', CAPTURE_MS], ['process', STORE_MS]],
    }, // prettier-ignore
    alone: ['process'],
  },
  'several processes, one database': { kinds: writerApart(spread), alone: ['writer'] },
  'a database for each account': { kinds: spread, alone: [] },
};

/** Uniform in (0, 1): after Lehmer (1951), with the multiplier of Park and Miller. */
const dice = (seed) => () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;

/**
 * So many seconds of the busiest hour.
 *
 * @param servers how many there are of each station
 * @returns for each station the share of the time that it was busy, and for each kind the 95th part of its times in milliseconds
 */
function simulate({ kinds }, readers, servers, seconds) {
  const random = dice(20);
  const events = new TinyQueue([], (a, b) => a.at - b.at);
  const stations = new Map(
    Object.entries(servers).map(([name, count]) => [name, { free: count, count, waiting: [], head: 0, busyMs: 0 }]),
  );
  const took = Object.fromEntries(Object.keys(kinds).map((kind) => [kind, []]));
  const endMs = seconds * 1000;
  const arrive = (kind, after) => {
    const perMs = (readers * A_DAY[kind] * BUSIEST) / 3_600_000;
    const at = after - Math.log(random()) / perMs;
    if (at < endMs) events.push({ at, kind, begunAt: at, step: 0, isArrival: true });
  };
  for (const kind of Object.keys(kinds)) arrive(kind, 0);
  const begin = (station, job, at) => {
    const [, ms] = kinds[job.kind][job.step];
    // Service times are not all the same: half of each is, the other half is exponential.
    const lasts = ms * (0.5 - 0.5 * Math.log(random()));
    station.free -= 1;
    station.busyMs += Math.min(lasts, Math.max(0, endMs - at));
    events.push({ ...job, at: at + lasts, isArrival: false, isDone: true });
  };
  for (let event = events.pop(); event; event = events.pop()) {
    const { at, kind } = event;
    if (at > endMs) break;
    if (event.isArrival) arrive(kind, at);
    let job = event;
    if (event.isDone) {
      const left = stations.get(kinds[kind][event.step][0]);
      left.free += 1;
      if (left.head < left.waiting.length) begin(left, left.waiting[left.head++], at);
      job = { ...event, step: event.step + 1, isDone: false };
      if (job.step === kinds[kind].length) {
        took[kind].push(at - event.begunAt);
        continue;
      }
    }
    const station = stations.get(kinds[kind][job.step][0]);
    if (station.free > 0) begin(station, job, at);
    else station.waiting.push(job);
  }
  const busy = [...stations].map(([name, { busyMs, count }]) => [name, busyMs / (endMs * count)]);
  // Who still waits at the end has waited so long at least.
  const left = [...stations.values()].flatMap(({ waiting, head }) => waiting.slice(head));
  for (const { kind, begunAt } of left) took[kind].push(endMs - begunAt);
  const p95 = (times) => Math.round([...times].sort((a, b) => a - b)[Math.floor(times.length * 0.95)] ?? 0);
  return { busy: Object.fromEntries(busy), p95: Object.fromEntries(Object.entries(took).map(([k, t]) => [k, p95(t)])) };
}

/** What is busier than this falls behind in the end, however good some seconds of it are. */
const MOST_BUSY = 0.9;
const isGood = ({ p95, busy }) =>
  ['pull', 'push', 'find'].every((kind) => p95[kind] <= GOOD_MS) &&
  p95.capture <= GOOD_CAPTURE_MS &&
  Object.values(busy).every((share) => share <= MOST_BUSY);
const stationsOf = ({ kinds }) => [...new Set(Object.values(kinds).flatMap((steps) => steps.map(([name]) => name)))];
/** Time that is simulated: enough events for a 95th part, and no more than some millions. */
const secondsFor = (readers) => Math.max(20, Math.min(600, 1_000_000 / readers));

/** Fewer cannot do what there is to be done; one of what can be no more. */
function atLeast({ kinds, alone }, readers, name) {
  if (alone.includes(name)) return 1;
  const msOf = (steps) => steps.filter(([station]) => station === name).reduce((sum, [, ms]) => sum + ms, 0);
  const asked = Object.entries(kinds).map(([kind, steps]) => readers * A_DAY[kind] * BUSIEST * msOf(steps));
  return Math.max(1, Math.floor(asked.reduce((sum, ms) => sum + ms, 0) / 3_600_000));
}

/** How many of each are needed: more of what is busiest, until all is good or what is busiest can be no more than one. */
function grown(way, readers) {
  const servers = Object.fromEntries(stationsOf(way).map((name) => [name, atLeast(way, readers, name)]));
  for (;;) {
    const outcome = simulate(way, readers, servers, secondsFor(readers));
    if (isGood(outcome)) return { servers, outcome };
    const [busiest] = Object.entries(outcome.busy).sort((a, b) => b[1] - a[1])[0];
    if (way.alone.includes(busiest)) return { servers, outcome, stoppedBy: busiest };
    servers[busiest] += Math.max(1, Math.floor(servers[busiest] / 20));
  }
}

/** The largest number of readers with whom it is still good, when no more is added than there can be. */
function carries(way) {
  let [good, bad] = [0, 2_000_000];
  while (bad - good > Math.max(100, good * 0.02)) {
    const readers = Math.round((good + bad) / 2);
    const { stoppedBy } = grown(way, readers);
    if (stoppedBy) bad = readers;
    else good = readers;
  }
  return Math.round(good / 100) * 100;
}

const lines = [];
const say = (line) => {
  console.log(line);
  lines.push(line);
};
const percent = (share) => `${Math.round(share * 100)} %`;
say(`| readers | built as | how many of each, how busy | ${Object.keys(A_DAY).join(' / ')}, ms at the 95th part | |`);
say('|---|---|---|---|---|');
for (const readers of [1000, 10_000, 1_000_000])
  for (const [name, way] of Object.entries(WAYS)) {
    const { servers, outcome, stoppedBy } = grown(way, readers);
    const each = Object.entries(servers).map(([what, n]) => `${n} ${what} ${percent(outcome.busy[what])}`);
    const times = Object.keys(A_DAY).map((kind) => outcome.p95[kind]);
    const says = stoppedBy ? `**breaks: one ${stoppedBy} is all there can be**` : 'good';
    say(`| ${readers.toLocaleString('en')} | ${name} | ${each.join(', ')} | ${times.join(' / ')} | ${says} |`);
  }
say('');
for (const [name, way] of Object.entries(WAYS))
  if (way.alone.length > 0) say(`- ${name}: good up to some ${carries(way).toLocaleString('en')} readers.`);
const memory = (readers) => {
  const used = readers * USED;
  const [mb, databases] = [used * ACCOUNT_MB, used * NAMESPACE_MB];
  const machines = Math.ceil(mb / MACHINE.memoryMb);
  return `- memory, ${readers.toLocaleString('en')} readers: ${Math.round(mb / 1000)} GB of libraries that are used, ${machines} ${machines === 1 ? 'machine' : 'machines'} of ${MACHINE.memoryMb / 1000} GB; ${Math.ceil(databases / 1000)} GB more for databases that are open.`;
};
for (const readers of [1000, 10_000, 1_000_000]) say(memory(readers));
say(
  `- one machine of ${MACHINE.memoryMb / 1000} GB holds the libraries that are used of some ${Math.round(MACHINE.memoryMb / ACCOUNT_MB / USED / 100) * 100} readers.`,
);

if (process.argv.includes('--write'))
  writeFileSync(
    path.join(root, 'docs/bench/growth.md'),
    `# The busiest hour with many readers\n\nMade by \`npm run bench -- growth --write\`: a simulation of discrete events, with a seed, from the times of [one request](database.md), ${CAPTURE_MS} ms of a\ncore for a capture, and what a reader does in a day: ${Object.entries(
      A_DAY,
    )
      .map(([kind, n]) => `${n} × ${kind}`)
      .join(
        ', ',
      )}, a tenth of it in the busiest hour. Good is:\n${GOOD_MS} ms at the 95th part for what is asked, ${GOOD_CAPTURE_MS / 1000} s until a page has come. Of what is busiest there is one more, and again, until it is good.\nNot in it: machines that fail, networks between them, readers of one time zone.\n\n${lines.join('\n')}\n`,
  );
