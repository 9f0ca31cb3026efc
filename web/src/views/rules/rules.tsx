import {
  type Automation,
  calendarFile,
  dayNumber,
  latestInstant,
  offOnLeaving,
  plural,
  putPart,
  removePart,
  ruleWords,
  scheduleLacks,
  scheduleLackText,
  setParts,
} from '@inventario/core';
import { CalendarDays, Check, Pencil, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { downloadCalendar } from '../../data/downloads.js';
import { useEnergy } from '../../data/energy.js';
import { instant, newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { useSchedules } from '../../data/plan-answers.js';
import type { Schedules } from '../../data/planner.worker.js';
import { Bench } from '../../parts/bench.js';
import { timeOf } from '../../parts/times.js';
import { Button } from '../../ui/button.js';
import { Empty } from '../../ui/empty.js';
import { DayLine } from './day-line.js';
import { InTurnDialog } from './in-turn-dialog.js';
import { RuleDialog } from './rule-dialog.js';
import { RulesReckoning } from './rules-reckoning.js';
import { ThingsDialog } from './things-dialog.js';
import { YearView } from './year-view.js';

/** Will it fire? */
export function RulesView() {
  const { job, known, apply } = useJob();
  const [date, setDate] = useState(() => instant().slice(0, 10));
  const energy = useEnergy();
  const today = dayNumber(instant().slice(0, 10)) ?? 0;
  const schedules = useSchedules({
    today,
    day: dayNumber(date) ?? today,
    tariff: energy.tariff > 0 ? energy.tariff : null,
  });
  const lacks = scheduleLacks(known);
  const year = schedules?.year;
  const [editing, setEditing] = useState<Automation | 'new' | null>(null);
  const [listing, setListing] = useState<'things' | 'in-turn' | null>(null);
  const { automations } = job;
  const unseen = automations.filter(({ enabled, seen }) => enabled !== false && !seen).length;
  const troubles = year?.conflicts.length ?? 0;
  const inWords = [
    plural(automations.length, 'rule'),
    ...(troubles > 0 ? [plural(troubles, 'conflict')] : []),
    ...(unseen > 0 ? [`${unseen} not seen to fire`] : []),
  ].join(', ');
  const lives = job.brief?.platforms?.[0]?.name ?? job.catalogue.platforms[0]?.name;
  const calendar = () =>
    downloadCalendar(
      job,
      calendarFile(known, dayNumber(date) ?? 0, Math.floor((latestInstant(job) ?? 0) / 60_000)),
    );
  return (
    <Bench title="Rules" glance={inWords} reckoning={<RulesReckoning year={year} energy={energy} />}>
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <div className="mr-auto">
          <h1 className="text-xl font-bold">Rules</h1>
          <p className="text-soft">{inWords}</p>
        </div>
        <Button kind="main" icon={Plus} onClick={() => setEditing('new')}>
          New rule
        </Button>
      </div>
      {lacks && (
        <p role="status" className="mb-3 rounded-md border-2 border-ink p-2">
          {scheduleLackText(lacks)}
        </p>
      )}
      {automations.length === 0 ? (
        <Empty title="No rules yet">
          <p>Timers, sunset lights, motion with hours, everything off on leaving: whichever app runs them.</p>
        </Empty>
      ) : (
        schedules && <DayLine told={schedules.day} date={date} onDate={setDate} />
      )}
      <ul className="mt-3 flex flex-col gap-1.5" aria-label="Rules">
        {automations.map((rule) => (
          <li key={rule.id} className="rounded-lg border border-rule bg-sheet p-3">
            <OneRule rule={rule} conflicts={year?.conflicts ?? []} onEdit={() => setEditing(rule)} />
          </li>
        ))}
      </ul>
      <div className="mt-3 flex flex-wrap gap-1.5">
        {lives && (
          <Button onClick={() => setEditing(offOnLeaving(known, lives, newId))}>
            Everything off on leaving …
          </Button>
        )}
        <Button onClick={() => setListing('things')}>Things outside boxes …</Button>
        <Button onClick={() => setListing('in-turn')}>Lit in turn …</Button>
        {!lacks && automations.length > 0 && (
          <Button icon={CalendarDays} onClick={calendar}>
            As a calendar file
          </Button>
        )}
      </div>
      {schedules && automations.length > 0 && <YearView schedules={schedules} />}
      {editing && (
        <RuleDialog
          rule={editing === 'new' ? null : editing}
          onKeep={(rule) => {
            if (apply([putPart('automation', rule.id, rule)], `Rule ${rule.name}`)) setEditing(null);
          }}
          onClose={() => setEditing(null)}
        />
      )}
      {listing === 'things' && <ThingsDialog onClose={() => setListing(null)} />}
      {listing === 'in-turn' && <InTurnDialog onClose={() => setListing(null)} />}
    </Bench>
  );
}

function OneRule({
  rule,
  conflicts,
  onEdit,
}: {
  rule: Automation;
  conflicts: Schedules['year']['conflicts'];
  onEdit: () => void;
}) {
  const { known, apply, applyAndSay } = useJob();
  const words = ruleWords(rule, known);
  const troubles = conflicts.filter(({ automationIds }) => automationIds.includes(rule.id));
  const isOn = rule.enabled !== false;
  return (
    <div className="flex flex-wrap items-start gap-x-3 gap-y-1">
      <div className="min-w-60 flex-1">
        <p>
          <b>{rule.name}</b> <span className="text-sm text-soft">in {rule.lives}</span>
          {!isOn && <span className="ml-2 text-sm font-semibold">switched off</span>}
        </p>
        <p>
          {words.when.charAt(0).toUpperCase() + words.when.slice(1)}: {words.does}.
        </p>
        {troubles.length > 0 && (
          <ul className="list-disc pl-5 text-sm font-semibold">
            {troubles.map(({ id, says }) => (
              <li key={id}>{says}</li>
            ))}
          </ul>
        )}
        <p className="text-sm text-soft">
          {rule.seen ? `Seen to fire ${timeOf(rule.seen)}.` : 'Not seen to fire yet.'}
        </p>
      </div>
      <div className="flex flex-wrap gap-1">
        {!rule.seen && isOn && (
          <Button
            icon={Check}
            onClick={() =>
              apply(
                setParts('automation', rule.id, rule, { seen: instant() }),
                `${rule.name} was seen to fire`,
              )
            }
          >
            Seen to fire
          </Button>
        )}
        <Button
          onClick={() =>
            apply(
              setParts('automation', rule.id, rule, { enabled: !isOn }),
              `${rule.name} switched ${isOn ? 'off' : 'on'}`,
            )
          }
        >
          {isOn ? 'Switch off' : 'Switch on'}
        </Button>
        <Button kind="quiet" icon={Pencil} iconOnly title="Edit" onClick={onEdit}>
          {`Edit ${rule.name}`}
        </Button>
        <Button
          kind="quiet"
          icon={Trash2}
          iconOnly
          title="Delete"
          onClick={() =>
            applyAndSay(
              [removePart('automation', rule.id)],
              `${rule.name} deleted`,
              `${rule.name} is deleted`,
            )
          }
        >
          {`Delete ${rule.name}`}
        </Button>
      </div>
    </div>
  );
}
