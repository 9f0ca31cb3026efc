import type { scheduleLacks } from '../../commission/schedule/schedule.js';
import type { ScheduleFinding } from '../../commission/schedule/vocabulary.js';
import type { JobLookup } from '../../job/lookup.js';
import { listed } from './stops.js';
import { targetWords } from './targets.js';

/** A finding about the rules of the house, in a sentence. */
export function scheduleFindingText(finding: ScheduleFinding, known: JobLookup): string {
  const { code, automationIds, target } = finding;
  const rules = listed(automationIds.map((id) => ruleName(id, known)));
  const what = target === null ? '' : targetWords(target, known);
  switch (code) {
    case 'clash':
      return `${rules} set ${what} to different states in the same minute.`;
    case 'undone':
      return `${what} is switched and switched back within minutes, by ${rules}.`;
    case 'no-sun':
      return `${rules} does not fire that day: the sun does not rise or set.`;
    case 'opposite-overlap':
      return `${oppositeWords(target, known)} are both lit, by ${rules}.`;
    case 'opposite-gap':
      return `${oppositeWords(target, known)} are both dark, by ${rules}.`;
    case 'never-off': {
      const verb = automationIds.length > 1 ? 'switch' : 'switches';
      return `${rules} ${verb} ${what} on; no rule switches it off.`;
    }
    case 'cut-supply':
      return `${rules} cuts the supply of the smart bulbs at ${what}: they go dark and cannot be reached.`;
    case 'not-there':
      return `${rules} lives where ${what} is not to be found.`;
  }
}

/** What a job lacks before its schedule can be told, in a sentence. */
export const scheduleLackText = (field: NonNullable<ReturnType<typeof scheduleLacks>>): string =>
  field === '/site/timeZone'
    ? 'When rules fire is told once the job knows its time zone (House, job details).'
    : 'When rules by the sun fire is told once the job knows its latitude and longitude (House, job details).';

const ruleName = (id: string, { job }: JobLookup) =>
  `"${job.automations.find((rule) => rule.id === id)?.name ?? id}"`;

function oppositeWords(id: string | null, known: JobLookup): string {
  const pair = known.job.opposites?.find((entry) => entry.id === id);
  return pair ? listed([pair.a, pair.b].map((target) => targetWords(target, known))) : String(id);
}
