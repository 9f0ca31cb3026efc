import { api } from '../api.js';
import { newId, thisDevice } from '../ids.js';
import type { SessionTools } from './job-session.js';
import { keptStore, PERSON } from './kept-store.js';
import type { EventStream } from './live-changes.js';
import { tabLine } from './tab-line.js';

/** One page of this browser: another name each time it is loaded. */
const TAB = newId();

/** What a session works with in a browser. */
export function browserTools(jobId: string): SessionTools {
  return {
    api,
    openStream: (address) => new EventSource(address) as EventStream,
    kept: keptStore(),
    line: tabLine(`inventario/${PERSON}/${jobId}`),
    deviceId: thisDevice(),
    tab: TAB,
    nextNumber,
  };
}

let made = 0;

/** Counts the edits of this browser, over its tabs as far as it lets them share a number. */
function nextNumber(): number {
  try {
    made = Math.max(made, Number(localStorage.getItem('edits-made') ?? 0)) + 1;
    localStorage.setItem('edits-made', String(made));
  } catch {
    made += 1;
  }
  return made;
}
