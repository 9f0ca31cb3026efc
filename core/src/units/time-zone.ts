import { tzOffset } from '@date-fns/tz/tzOffset';

/** The first part of a zone's name in the tz database. */
const AREAS = new Set(
  (
    'Africa America Antarctica Arctic Asia Atlantic Australia Brazil Canada Chile Etc Europe Indian Mexico ' +
    'Pacific US'
  ).split(' '),
);

/** Its zones of one word; whatever else of one word a runtime takes is an abbreviation of its own. */
const SINGLE = new Set(
  (
    'CET CST6CDT Cuba EET EST EST5EDT Egypt Eire GB GB-Eire GMT GMT+0 GMT-0 GMT0 Greenwich HST Hongkong ' +
    'Iceland Iran Israel Jamaica Japan Kwajalein Libya MET MST MST7MDT NZ NZ-CHAT Navajo PRC PST8PDT ' +
    'Poland Portugal ROC ROK Singapore Turkey UCT UTC Universal W-SU WET Zulu'
  ).split(' '),
);

const known = new Map<string, boolean>();

/** Whether it is the name of a zone in the tz database that this runtime has. */
export function isTimeZone(name: string): boolean {
  let answer = known.get(name);
  if (answer === undefined) {
    answer = (SINGLE.has(name) || AREAS.has(name.split('/', 1)[0] ?? '')) && taken(name);
    known.set(name, answer);
  }
  return answer;
}

function taken(name: string): boolean {
  try {
    const { timeZone } = new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions();
    // The same name written otherwise, in small letters say, is no name of the database.
    return timeZone.toLowerCase() !== name.toLowerCase() || timeZone === name;
  } catch {
    return false;
  }
}

/** By how many minutes the clock of the zone is ahead of UTC at an instant (ms). */
export function clockAhead(zone: string, at: number): number {
  return Math.round(tzOffset(zone, new Date(at)));
}
