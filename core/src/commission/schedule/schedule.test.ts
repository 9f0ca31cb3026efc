import { describe, expect, test } from '@jest/globals';
import { Body, MakeTime, Observer, SearchAltitude } from 'astronomy-engine';
import { lookup } from '../../job/lookup.js';
import type { Automation, Target } from '../../job/schema/commissioning.js';
import { DAYS } from '../../job/schema/commissioning.js';
import type { Job } from '../../job/schema/job.js';
import { exampleJob } from '../../test-support/examples.js';
import { Random } from '../../test-support/random.js';
import { idOf, speakingHouse, withRules } from '../../test-support/speaking-house.js';
import { DAY, dateText, dayNumber, instantText, wallText } from './calendar.js';
import { scheduleLacks, scheduleOf } from './schedule.js';
import { isUp, sunDays, sunEvents } from './sun.js';
import type { Schedule } from './vocabulary.js';
import { WallClock } from './wall-clock.js';

const day = (date: string) => dayNumber(date) ?? Number.NaN;

test('a date that is none has no number', () => {
  expect([dayNumber('2026-02-30'), dayNumber('2026-2-3'), dayNumber('nonsense')]).toEqual([null, null, null]);
  expect(dateText(day('2028-02-29'))).toBe('2028-02-29');
});

describe('the clock on the wall', () => {
  test.each<[string, string, string, string, string]>([
    ['Europe/London', '2026-03-29', '01:20', '2026-03-29T01:20:00Z', 'skipped'],
    ['Europe/London', '2026-10-25', '01:20', '2026-10-25T00:20:00Z', 'repeated'],
    ['America/New_York', '2026-03-08', '02:30', '2026-03-08T07:30:00Z', 'skipped'],
    // Half an hour forward.
    ['Australia/Lord_Howe', '2026-10-04', '02:10', '2026-10-03T15:40:00Z', 'skipped'],
    // Midnight itself is skipped.
    ['America/Santiago', '2026-09-06', '00:30', '2026-09-06T04:30:00Z', 'skipped'],
    // A whole date that never was.
    ['Pacific/Apia', '2011-12-30', '12:00', '2011-12-30T22:00:00Z', 'skipped'],
  ])('%s %s %s is %s, %s', (zone, date, time, at, clock) => {
    const wall = new WallClock(zone, day(date), day(date) + 1);
    const [hours = 0, minutes = 0] = time.split(':').map(Number);
    const shown = wall.instantOf(day(date) * DAY + hours * 60 + minutes);
    expect([instantText(shown.at), shown.clock]).toEqual([at, clock]);
  });

  test('a date begins at its first instant, also where midnight is skipped', () => {
    const wall = new WallClock('America/Santiago', day('2026-09-05'), day('2026-09-07'));
    expect(instantText(wall.startOf(day('2026-09-06')))).toBe('2026-09-06T04:00:00Z');
    expect(wallText(wall.wallAt(wall.startOf(day('2026-09-06'))))).toBe('2026-09-06T01:00');
    expect(instantText(wall.startOf(day('2026-09-07')))).toBe('2026-09-07T03:00:00Z');
  });
});

describe('the sun, against an almanac of its own', () => {
  const places: [number, number, number][] = [
    [0, 0, 1],
    [-33.9, 151.2, 1],
    [52.7, 1.5, 1],
    [-54.8, -68.3, 1],
    [64.1, -21.9, 1],
    [65, 179.5, 1],
    [67.3, 14.4, 5],
    [69.9, -150, 5],
  ];
  test.each(places)(
    'at latitude %d, longitude %d, within %d minutes all year',
    (latitude, longitude, within) => {
      const spot = { latitude, longitude };
      const from = day('2026-01-01') * DAY;
      for (let month = 0; month < 24; month += 1) {
        const start = from + month * 15 * DAY;
        const events = sunEvents(spot, start, start + 2 * DAY);
        const observer = new Observer(latitude, longitude, 0);
        for (const [kind, direction] of [
          ['sunrise', 1],
          ['sunset', -1],
        ] as const) {
          const found = SearchAltitude(
            Body.Sun,
            observer,
            direction,
            MakeTime(new Date((start + within) * 60_000)),
            1.8,
            -0.833,
          );
          const almanac = found ? found.date.getTime() / 60_000 : null;
          const own = events.find((event) => event.kind === kind && event.at >= start + within)?.at ?? null;
          if (almanac === null || own === null)
            expect([instantText(start), own]).toEqual([instantText(start), almanac]);
          else expect(Math.abs(own - almanac)).toBeLessThan(within + 0.51);
        }
      }
    },
  );

  test('polar days have neither, and say which', () => {
    const spot = { latitude: 69.65, longitude: 18.96 };
    const sunOf = (date: string) => {
      const clock = new WallClock('Europe/Oslo', day(date), day(date) + 1);
      const events = sunEvents(spot, (day(date) - 2) * DAY, (day(date) + 2) * DAY);
      return sunDays(spot, events, { clock, fromDay: day(date), toDay: day(date) + 1 })[0]?.sun;
    };
    expect([sunOf('2026-06-21'), sunOf('2026-12-21'), sunOf('2026-03-20')]).toEqual([
      'always-up',
      'always-down',
      'rises',
    ]);
    expect(isUp(day('2026-06-21') * DAY, spot)).toBe(true);
  });

  test('an event belongs to its local date: in late July the sun sets twice on one date there', () => {
    const spot = { latitude: 69.65, longitude: 18.96 };
    const [fromDay, toDay] = [day('2026-07-10'), day('2026-08-10')];
    const clock = new WallClock('Europe/Oslo', fromDay, toDay);
    const events = sunEvents(spot, (fromDay - 2) * DAY, (toDay + 2) * DAY);
    const sets = events.filter(({ kind }) => kind === 'sunset').map(({ at }) => clock.dayAt(at));
    const twice = sets.filter((date, nth) => sets.indexOf(date) !== nth && date >= fromDay && date < toDay);
    const days = sunDays(spot, events, { clock, fromDay, toDay });
    expect(twice).toHaveLength(1);
    const first = events.find(({ kind, at }) => kind === 'sunset' && clock.dayAt(at) === twice[0]);
    expect(days.find((entry) => entry.day === twice[0])?.sunset).toBe(first?.at);
  });
});

/** The schedule minute by minute, as with a calendar on the wall; the sun is taken as it is given. */
function plainSchedule(job: Job, fromDay: number, toDay: number, sun: { kind: string; at: number }[]) {
  const zone = job.site?.timeZone ?? '';
  const format = new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'short' });
  const kept = new Map<number, string>();
  const wallAt = (at: number) => {
    const wall = kept.get(at) ?? format.format(new Date(at * 60_000)).replace(' ', 'T');
    kept.set(at, wall);
    return wall;
  };
  const walls: { at: number; wall: string }[] = [];
  for (let at = (fromDay - 3) * DAY; at < (toDay + 3) * DAY; at += 1) walls.push({ at, wall: wallAt(at) });
  const firstShown = new Map<string, number>();
  const shown = new Map<string, number>();
  for (const { at, wall } of walls) {
    if (!firstShown.has(wall)) firstShown.set(wall, at);
    shown.set(wall, (shown.get(wall) ?? 0) + 1);
  }
  const [first, end] = [dateText(fromDay), dateText(toDay)];
  const inRange = (at: number) => wallAt(at) >= first && wallAt(at).slice(0, 10) < end;
  const rules = job.automations.filter((rule) => rule.enabled !== false);
  const asMinutes = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
  const isDark = (at: number) => sun.filter((event) => event.at <= at).at(-1)?.kind === 'sunset';
  const allowed = (rule: Automation, at: number) => {
    if (rule.if?.dark && !isDark(at)) return false;
    if (!rule.if?.from || !rule.if.to) return true;
    const [from, to] = [asMinutes(rule.if.from), asMinutes(rule.if.to)];
    for (let minute = from, steps = 0; steps < DAY; minute = (minute + 1) % DAY, steps += 1) {
      if (steps > 0 && minute === to) return false;
      if (minute === asMinutes(wallAt(at).slice(11))) return true;
    }
    return from === to;
  };
  const isOn = (rule: Automation, date: string) =>
    !rule.days || rule.days.includes(DAYS[(new Date(date).getUTCDay() + 6) % 7] as 'mon');
  const firings: { id: string; at: number; clock: string }[] = [];
  for (const rule of rules) {
    for (let date = fromDay - 2; date < toDay + 2; date += 1) {
      const name = dateText(date);
      if (rule.when.at && isOn(rule, name)) {
        const wall = `${name}T${rule.when.at}`;
        const at = firstShown.get(wall);
        const before = at === undefined ? walls.findLast((entry) => entry.wall < wall) : undefined;
        const late = before
          ? before.at + (Date.parse(`${wall}Z`) - Date.parse(`${before.wall}Z`)) / 60_000
          : 0;
        firings.push({
          id: rule.id,
          at: at ?? late,
          clock: at === undefined ? 'skipped' : shown.get(wall) === 2 ? 'repeated' : 'normal',
        });
      }
      const event = sun.find(({ kind, at }) => kind === rule.when.sun && wallAt(at).startsWith(name));
      if (event && isOn(rule, name))
        firings.push({ id: rule.id, at: event.at + (rule.when.offset ?? 0), clock: 'normal' });
    }
  }
  const fired = firings
    .filter(({ id, at }) => inRange(at) && allowed(rules.find((rule) => rule.id === id) as Automation, at))
    .sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1));
  return {
    firings: fired,
    findings: plainFindings(job, rules, fired, { start: (fromDay - 3) * DAY, wallAt, end }),
  };
}

/** What a target comes to when a rule has fired, and what is said of all of them, minute by minute. */
function plainFindings(
  job: Job,
  rules: Automation[],
  firings: { id: string; at: number }[],
  { start, end, wallAt }: { start: number; end: string; wallAt: (at: number) => string },
): string[] {
  const channels = job.selections.flatMap(({ boxId, position, deviceId }) =>
    (job.catalogue.devices.find(({ id }) => id === deviceId)?.channels ?? []).map((channel) => ({
      id: `${boxId}/${position}/${channel.id}`,
      roomId: job.boxes.find(({ id }) => id === boxId)?.roomId,
    })),
  );
  const things = job.things ?? [];
  const inTarget = (target: Target) =>
    target.roomId === undefined
      ? [idOf(target)]
      : [
          ...channels.filter((one) => one.roomId === target.roomId),
          ...things.filter((one) => one.roomId === target.roomId && one.kind !== 'sensor'),
        ].map(({ id }) => id);
  const last = (rule: Automation, target: string) => {
    const action = rule.then?.filter((one) => inTarget(one.target).includes(target)).at(-1);
    if (!action || action.do === 'toggle') return action ? 'toggle' : null;
    return action.do === 'on' || (action.do === 'level' && (action.value ?? 0) > 0) ? 'on' : 'off';
  };
  const found: string[] = [];
  const say = (
    code: string,
    ids: string[],
    target: string | null,
    at: number | null,
    until: number | null = null,
  ) => found.push(`${code} ${[...new Set(ids)].sort()} ${target} ${at} ${until}`);
  const targets = [...channels.map(({ id }) => id), ...things.map(({ id }) => id)];
  let stop = start;
  while (wallAt(stop) < end) stop += 1;
  const state = new Map<string, { now: string; by: string[] }>();
  const story = new Map<string, { at: number; what: string; by: string[] }[]>();
  const open = new Map<string, { code: string; at: number; by: string[] }>();
  const close = (id: string, until: number | null, at: number) => {
    const since = open.get(id);
    open.delete(id);
    if (since && at - since.at > 1) say(since.code, since.by, id, since.at, until);
  };
  const times = [...new Set(firings.map(({ at }) => at))];
  for (const at of times) {
    const now = firings
      .filter((one) => one.at === at)
      .map(({ id }) => rules.find((rule) => rule.id === id) as Automation);
    for (const target of targets) {
      const by = (what: string) => now.filter((rule) => last(rule, target) === what).map(({ id }) => id);
      const [on, off, turns] = [by('on'), by('off'), by('toggle')];
      if (on.length + off.length + turns.length === 0) continue;
      const told = story.get(target) ?? [];
      story.set(target, told);
      if (on.length > 0 && off.length > 0) {
        say('clash', [...on, ...off], target, at);
        told.push({ at, what: 'clash', by: [] });
        state.set(target, { now: 'unknown', by: [...on, ...off] });
        continue;
      }
      const set = on.length > 0 ? 'on' : off.length > 0 ? 'off' : null;
      const before = told.at(-1);
      const opposite = set === 'on' ? 'off' : 'on';
      if (set && turns.length === 0 && before?.what === opposite && at - before.at <= 5)
        say('undone', [...before.by, ...on, ...off], target, at);
      let value = set ?? state.get(target)?.now ?? 'unknown';
      for (const _ of turns) value = value === 'on' ? 'off' : value === 'off' ? 'on' : 'unknown';
      told.push({ at, what: set && turns.length === 0 ? set : 'turned', by: [...on, ...off] });
      state.set(target, { now: value, by: [...on, ...off, ...turns] });
    }
    for (const pair of job.opposites ?? []) {
      const [a, b] = [state.get(idOf(pair.a)), state.get(idOf(pair.b))];
      const both = a && b && a.now === b.now && a.now !== 'unknown' ? a.now : null;
      const code = both === 'on' ? 'opposite-overlap' : both === 'off' ? 'opposite-gap' : null;
      if (open.get(pair.id)?.code === (code ?? undefined)) continue;
      close(pair.id, at, at);
      if (code) open.set(pair.id, { code, at, by: [...(a?.by ?? []), ...(b?.by ?? [])] });
    }
  }
  for (const pair of job.opposites ?? []) close(pair.id, null, stop);
  const selectionOf = (target: string) =>
    job.selections.find(({ boxId, position }) => target.startsWith(`${boxId}/${position}/`));
  const deviceOf = (target: string) =>
    job.catalogue.devices.find(({ id }) => id === selectionOf(target)?.deviceId);
  for (const target of targets) {
    const counted = rules.some((rule) => rule.when.of && inTarget(rule.when.of).includes(target));
    const on = rules.filter((rule) => last(rule, target) === 'on').map(({ id }) => id);
    if (
      on.length > 0 &&
      !counted &&
      !rules.some((rule) => ['off', 'toggle'].includes(last(rule, target) ?? ''))
    )
      say('never-off', on, target, null);
    const channel = target.split('/')[2] ?? '';
    const load = selectionOf(target)?.channels?.[channel];
    const bulbs = job.loads.find(({ id }) => id === load)?.kind === 'smart-bulb';
    const lists = deviceOf(target)?.platforms ?? things.find(({ id }) => id === target)?.platforms ?? [];
    for (const rule of rules) {
      if (bulbs && last(rule, target) === 'off') say('cut-supply', [rule.id], target, null);
      const acts = last(rule, target) !== null || (rule.when.of && inTarget(rule.when.of).includes(target));
      const lives = job.catalogue.platforms.some(({ name }) => name === rule.lives);
      if (acts && lives && !lists.includes(rule.lives)) say('not-there', [rule.id], target, null);
    }
  }
  return found.sort();
}

const inLine = ({ code, automationIds, target, at, until }: Schedule['findings'][number]) =>
  `${code} ${[...new Set(automationIds)].sort()} ${target} ${at} ${until}`;

describe('rules drawn at random, against a calendar read minute by minute', () => {
  test.each(
    Array.from({ length: 24 }, (_, seed) => ({
      seed,
      ...([
        { zone: 'Europe/London', date: '2026-03-27' },
        { zone: 'Europe/London', date: '2026-10-23' },
        { zone: 'Australia/Lord_Howe', date: '2026-04-03' },
        { zone: 'America/Santiago', date: '2026-09-04' },
        { zone: 'Asia/Kolkata', date: '2026-07-01' },
        { zone: 'Pacific/Apia', date: '2011-12-28' },
      ][seed % 6] as { zone: string; date: string }),
    })),
  )('seed $seed, $zone', ({ seed, zone, date }) => {
    const random = new Random(seed);
    const job = withRules(speakingHouse(exampleJob('long-room'), random, 1), random, random.int(3, 14));
    job.site = { latitude: 52.7, longitude: 1.5, timeZone: zone };
    const [fromDay, toDay] = [day(date), day(date) + 4];
    const events = sunEvents({ latitude: 52.7, longitude: 1.5 }, (fromDay - 3) * DAY, (toDay + 3) * DAY);
    const plain = plainSchedule(job, fromDay, toDay, events);
    const schedule = scheduleOf(lookup(job), { fromDay, toDay });
    expect(schedule.firings.map(({ rule, at, clock }) => ({ id: rule.id, at, clock }))).toEqual(
      plain.firings,
    );
    // A date that never was has no sun: that is judged elsewhere.
    const findings = schedule.findings.filter(({ code }) => code !== 'no-sun');
    expect(findings.map(inLine).sort()).toEqual(plain.findings);
  });
});

const NOTHING: Automation = JSON.parse('{"id":"r","name":"r","lives":"Orrery","when":{},"then":[]}');

describe('what it needs to know', () => {
  const job = withRules(speakingHouse(exampleJob('long-room'), new Random(5), 1), new Random(5), 0);
  const rule: Automation = { ...NOTHING, when: { sun: 'sunset' } };
  const lacks = (change: Partial<Job>) => scheduleLacks(lookup({ ...job, ...change }));

  test('the zone always, the place only for an enabled rule of the sun or the dark', () => {
    const site = { timeZone: 'Europe/London' };
    expect(lacks({ site: {} })).toBe('/site/timeZone');
    expect(lacks({ site, automations: [{ ...rule, enabled: false }] })).toBeNull();
    expect(lacks({ site, automations: [rule] })).toBe('/site/latitude');
    expect(lacks({ site: { ...site, latitude: 3 }, automations: [rule] })).toBe('/site/longitude');
    const dark: Automation = { ...rule, when: { at: '12:00' }, if: { dark: true } };
    expect(lacks({ site, automations: [dark] })).toBe('/site/latitude');
    const plain = scheduleOf(lookup({ ...job, site }), { fromDay: 20_500, toDay: 20_501 });
    expect(plain.days).toEqual([{ day: 20_500, sunrise: null, sunset: null, sun: null }]);
  });

  test('a rule by the sun in the polar night is told once, at the start of its first such date', () => {
    const site = { timeZone: 'Europe/Oslo', latitude: 70, longitude: 20 };
    const automations: Automation[] = [{ ...rule, days: ['tue'] }];
    const fromDay = day('2026-12-17');
    const { findings, firings } = scheduleOf(lookup({ ...job, site, automations }), {
      fromDay,
      toDay: fromDay + 20,
    });
    expect(firings).toEqual([]);
    expect(findings.map(({ at }) => instantText(at ?? 0))).toEqual(['2026-12-21T23:00:00Z']);
  });
});
