import {
  dateText,
  instantText,
  lookup,
  nameFindingText,
  namesOf,
  scheduleFindingText,
  scheduleLacks,
  scheduleOf,
  wallText,
} from '@inventario/core';
import { UnusableError } from './arguments.js';
import { type Output, usable } from './commands.js';
import { table } from './table.js';

export function names(text: string, boxId: string | undefined): Output {
  const { job, boxes } = usable(text, boxId);
  const known = lookup(job);
  const asked = new Set(boxes.map((box) => box.id));
  const listed = namesOf(known)
    .filter((entry) => asked.has(entry.boxId))
    .map((entry) => ({
      ...entry,
      findings: entry.findings.map((finding) => ({
        code: finding.code,
        platform: finding.platform,
        with: finding.with,
        message: nameFindingText(finding, known),
      })),
      phrases: entry.phrases.map(({ platform, on, off }) => ({ platform, on, off })),
    }));
  return {
    json: { names: listed },
    text: (width) =>
      table(
        ['channel', 'name', 'findings', 'suggestion', 'words that work'],
        listed.map(({ boxId, position, channel, name, findings, suggestion, phrases }) => [
          `${boxId}/${position}/${channel}`,
          name ?? '-',
          findings.map(({ message }) => message).join(' '),
          suggestion ?? '-',
          phrases.map(({ platform, on }) => `${platform}: ${on}`).join('; '),
        ]),
        width,
      ),
  };
}

export function schedule(text: string, dates: { fromDay: number; days: number }): Output {
  const { job } = usable(text, undefined);
  const known = lookup(job);
  const lacks = scheduleLacks(known);
  if (lacks !== null) throw new UnusableError(lacks, 'is missing: the schedule needs it');
  const { fromDay, days } = dates;
  const result = scheduleOf(known, { fromDay, toDay: fromDay + days });
  const instant = (at: number | null) => (at === null ? null : instantText(at));
  const printed = {
    timeZone: result.timeZone,
    days: result.days.map(({ day, sunrise, sunset, sun }) => ({
      date: dateText(day),
      sunrise: instant(sunrise),
      sunset: instant(sunset),
      sun,
    })),
    firings: result.firings.map(({ rule, at, wall, clock }) => ({
      automationId: rule.id,
      at: instantText(at),
      local: wallText(wall),
      clock,
    })),
    findings: result.findings.map((finding) => ({
      ...finding,
      at: instant(finding.at),
      until: instant(finding.until),
      message: scheduleFindingText(finding, known),
    })),
  };
  return {
    json: printed,
    text: (width) =>
      [
        printed.timeZone,
        table(
          ['date', 'sunrise', 'sunset', 'sun'],
          printed.days.map(({ date, sunrise, sunset, sun }) => [date, sunrise ?? '-', sunset ?? '-', sun]),
          width,
        ),
        table(
          ['local', 'rule', 'clock'],
          printed.firings.map(({ automationId, local, clock }) => [local, automationId, clock]),
          width,
        ),
        ...printed.findings.map(({ code, at, message }) => `${code}${at ? `, ${at}` : ''}: ${message}`),
      ].join('\n\n'),
  };
}
