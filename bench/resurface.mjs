// npm run bench:resurface: a simulated year of a reader who queues more than they read, under three ways of bringing
// things back up: the resurfacing score, newest first, and at random. The reader is the same in each: what they save and
// how they take what is brought up are decided by numbers drawn once.
import { longestWait, RESURFACED_A_DAY, resurfaceToday } from '../core/src/queue/index.ts';
import { addDays, daysBetween } from '../core/src/reading/index.ts';

const DAYS = 365;
const START = '2025-11-25';
const QUEUED_A_DAY = 2.4;
const READ_ELSEWHERE_A_DAY = 1.1;
const SUBJECTS = 6;
/** While it is this fresh the reader remembers an item by themselves; what counts is whether it comes up afterwards. */
const FRESH_DAYS = 7;
/** An item has had its chance when it stayed this long after that. */
const CHANCE_DAYS = 30;

/** Mulberry32: a small generator of numbers in [0, 1), the same on every machine. */
function numbers(seed) {
  return () => {
    seed = (seed + 0x6d2b79f5) | 0;
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const POLICIES = {
  'resurfacing score': (queue, today, lately) =>
    resurfaceToday(
      queue.map((item) => ({
        ...item,
        passed: item.passed,
        minutesLeft: item.minutes * (1 - item.passed),
        promisedFor: null,
        nearness: lately.includes(item.subject) ? 0.4 : 0,
        nearTo: lately.filter((subject) => subject === item.subject).length,
      })),
      today,
    ).map(({ id }) => id),
  'newest first': (queue) =>
    [...queue]
      .reverse()
      .slice(0, RESURFACED_A_DAY)
      .map(({ id }) => id),
  'at random': (queue, _today, _lately, random) =>
    [...queue]
      .map((item) => ({ item, key: random() }))
      .sort((a, b) => a.key - b.key)
      .slice(0, RESURFACED_A_DAY)
      .map(({ item }) => item.id),
};

function year(choose, seed) {
  const random = numbers(seed);
  const dice = numbers(seed + 4);
  let queue = [];
  const all = [];
  let lately = [];
  let read = 0;
  let largest = 0;
  for (let day = 0; day < DAYS; day++) {
    const today = addDays(START, day);
    for (let n = Math.floor(QUEUED_A_DAY + random()); n > 0; n--) {
      const item = {
        id: `${String(all.length).padStart(5, '0')}`,
        savedOn: addDays(today, -Math.floor(random() * 7)),
        queuedOn: today,
        minutes: 2 + random() * 20,
        passed: random() < 0.15 ? random() * 0.8 : 0,
        subject: Math.floor(random() * SUBJECTS),
        // How much the reader wants it, which no policy knows.
        wanted: random(),
        shown: { times: 0, lastOn: null },
        passedOver: { times: 0, lastOn: null },
        shownAgainAfter: null,
        leftAfter: Infinity,
        longestUnshown: 0,
      };
      queue.push(item);
      all.push(item);
    }
    largest = Math.max(largest, queue.length);
    const lifted = choose(queue, today, lately, dice);
    for (const item of queue) {
      if (!lifted.includes(item.id)) continue;
      const since = daysBetween(item.shown.lastOn ?? item.queuedOn, today);
      item.longestUnshown = Math.max(item.longestUnshown, since);
      const age = daysBetween(item.queuedOn, today);
      if (age >= FRESH_DAYS) item.shownAgainAfter ??= age - FRESH_DAYS;
      item.shown = { times: item.shown.times + 1, lastOn: today };
      const liking = item.wanted + (lately.includes(item.subject) ? 0.15 : 0);
      const takes = random();
      if (takes < liking * 0.5) {
        item.done = true;
        item.readFresh = age < FRESH_DAYS;
        read += 1;
        lately = [item.subject, ...lately].slice(0, 8);
      } else if (takes > 0.75) item.passedOver = { times: item.passedOver.times + 1, lastOn: today };
    }
    queue = queue.filter((item) => !item.done);
    // What the reader takes from the Queue by themselves: mostly what is new.
    for (let n = Math.floor(READ_ELSEWHERE_A_DAY + random()); n > 0 && queue.length > 0; n--) {
      const at = queue.length - 1 - Math.floor(random() ** 3 * queue.length);
      const [taken] = queue.splice(at, 1);
      taken.done = true;
      taken.leftAfter = daysBetween(taken.queuedOn, today);
      read += 1;
      lately = [taken.subject, ...lately].slice(0, 8);
    }
  }
  const end = addDays(START, DAYS - 1);
  for (const item of queue)
    item.longestUnshown = Math.max(item.longestUnshown, daysBetween(item.shown.lastOn ?? item.queuedOn, end));
  const judged = all.filter(
    (item) =>
      item.shownAgainAfter !== null ||
      (Math.min(item.leftAfter, daysBetween(item.queuedOn, end)) >= FRESH_DAYS + CHANCE_DAYS && !item.readFresh),
  );
  const never = judged.filter((item) => item.shownAgainAfter === null);
  const waits = judged.map((item) => item.shownAgainAfter ?? Infinity).sort((a, b) => a - b);
  return {
    queued: all.length,
    never: never.length,
    judged: judged.length,
    medianWait: waits[Math.floor(waits.length / 2)],
    longestUnshown: Math.max(...queue.map((item) => item.longestUnshown)),
    read,
    left: queue.length,
    bound: longestWait(largest),
  };
}

// The weights of the score were looked at with the seed 7; what is printed is of seeds that were not.
const SEEDS = Array.from({ length: 20 }, (_, n) => 1000 + 17 * n);
console.log(
  `${SEEDS.length} years: ${QUEUED_A_DAY} items queued a day, ${READ_ELSEWHERE_A_DAY} taken by the reader, ${RESURFACED_A_DAY} brought up a day`,
);
const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
for (const [name, choose] of Object.entries(POLICIES)) {
  const years = SEEDS.map((seed) => year(choose, seed));
  const sum = (field) => years.reduce((total, each) => total + each[field], 0);
  const wait = median(years.map(({ medianWait }) => medianWait));
  console.log(
    `${name.padEnd(18)} never shown again ${String(sum('never')).padStart(5)} of ${sum('judged')} (${((100 * sum('never')) / sum('judged')).toFixed(1)} %)   median wait ${(Number.isFinite(wait) ? `${wait} days` : 'never').padEnd(8)}   longest unshown ${String(Math.max(...years.map((each) => each.longestUnshown))).padStart(3)} days   read ${Math.round(sum('read') / SEEDS.length)}, left ${Math.round(sum('left') / SEEDS.length)}${name === 'resurfacing score' ? `   bound ${Math.max(...years.map(({ bound }) => bound))} days` : ''}`,
  );
}
