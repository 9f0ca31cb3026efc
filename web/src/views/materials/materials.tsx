import {
  type Job,
  type MaterialLine,
  materialRows,
  materialsOf,
  moneyAmount,
  moneyText,
  mountedBoxes,
  type PlanChoice,
  SHELF_WORDS,
  SHELVES,
  setParts,
  trialOf,
} from '@inventario/core';
import { FileSpreadsheet, Sheet } from 'lucide-react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { downloadCsv, downloadWorkbook } from '../../data/downloads.js';
import { useJob } from '../../data/job-context.js';
import { Bench } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { TrialNote } from '../../parts/trial-note.js';
import { Button } from '../../ui/button.js';
import { Empty } from '../../ui/empty.js';
import { useSay } from '../../ui/say.js';

/** The choices that nothing is mounted for yet, as a plan would list them. */
function openChoices(job: Job): PlanChoice[] {
  const mounted = mountedBoxes(job);
  const open = job.selections.filter((selection) => !mounted.has(selection.boxId));
  return open.map(({ boxId, position, deviceId, strategy, with: parts = [] }) => ({
    boxId,
    position,
    deviceId,
    strategy,
    with: parts,
  }));
}

/** What do I buy, what is in the van? The list by the shelves one walks past. */
export function MaterialsView() {
  const { job, known, apply } = useJob();
  const say = useSay();
  const materials = useMemo(() => materialsOf(known), [known]);
  const trial = useMemo(
    () => (job.brief?.trialFirst ? trialOf(openChoices(job), known) : null),
    [job, known],
  );
  const { currency } = job.money ?? {};
  const rows = materialRows(materials.lines, currency);
  const open = materials.lines.filter((line) => line.toBuy > 0).length;
  const amount = (minor: number) => moneyAmount(minor, currency);
  const estimate = [
    { item: 'Materials, all of them', amount: amount(materials.estimate - materials.labour.cost) },
    { item: `Work, ${materials.labour.minutes} minutes`, amount: amount(materials.labour.cost) },
    { item: 'Together', amount: amount(materials.estimate) },
  ];
  const have = (line: MaterialLine, count: number) => {
    const inHand = { ...job.inHand, [line.item]: count };
    if (count === 0) delete inHand[line.item];
    apply(setParts('job', job.id, job, { inHand }), `In hand: ${line.what}`, `in-hand-${line.item}`);
  };
  const saved = (work: Promise<void>) =>
    work.catch((error: unknown) => say(`The file could not be made: ${String(error)}`));
  return (
    <Bench
      title="Materials"
      glance={`${open} lines to buy, ${moneyText(materials.total, currency)}`}
      reckoning={
        <div className="flex flex-col gap-3">
          <Button
            kind="main"
            icon={FileSpreadsheet}
            disabled={rows.length === 0}
            onClick={() =>
              saved(
                downloadWorkbook(job, 'materials', [
                  { name: 'Materials', rows },
                  { name: 'Estimate', rows: estimate },
                ]),
              )
            }
          >
            Save the list as a workbook
          </Button>
          <Button
            icon={Sheet}
            disabled={rows.length === 0}
            onClick={() => saved(downloadCsv(job, 'materials', rows))}
          >
            Save it as CSV
          </Button>
          <section aria-label="Estimate for the client">
            <h2 className="font-bold">Estimate for the client</h2>
            <dl className="grid grid-cols-[1fr_auto] gap-y-1">
              <dt>Materials, all of them</dt>
              <dd className="text-right tabular-nums">
                {moneyText(materials.estimate - materials.labour.cost, currency)}
              </dd>
              <dt>Work, {materials.labour.minutes} min</dt>
              <dd className="text-right tabular-nums">{moneyText(materials.labour.cost, currency)}</dd>
              <dt className="border-t border-rule font-bold">Together</dt>
              <dd className="border-t border-rule text-right font-bold tabular-nums">
                {moneyText(materials.estimate, currency)}
              </dd>
            </dl>
          </section>
          {trial && <TrialNote trial={trial} />}
          <p className="text-sm">Still to buy: {moneyText(materials.total, currency)}.</p>
          {materials.unpriced > 0 && (
            <p className="text-sm">
              {materials.unpriced} lines have no price in the catalogue and are not in the sum.
            </p>
          )}
          {materials.openBoxIds.length > 0 && (
            <p className="text-sm">
              Connectors and tails are counted from the joints known so far. Not every conductor is told in{' '}
              {materials.openBoxIds.slice(0, 4).map((id, at) => (
                <span key={id}>
                  {at > 0 && ', '}
                  <Link className="underline" to={paths.box(job.id, id)}>
                    {known.boxes.get(id)?.name}
                  </Link>
                </span>
              ))}
              {materials.openBoxIds.length > 4 && ` and ${materials.openBoxIds.length - 4} more`}.
            </p>
          )}
        </div>
      }
    >
      <h1 className="mb-1 text-xl font-bold">What to buy, what is in the van</h1>
      {materials.lines.length === 0 ? (
        <Empty title="Nothing is chosen yet">
          <Link className="underline" to={paths.plans(job.id)}>
            To the plans
          </Link>
        </Empty>
      ) : (
        <p className="mb-3 max-w-prose">
          For the devices chosen so far; what comes in their packages is taken off.
        </p>
      )}
      {SHELVES.map((shelf) => {
        const lines = materials.lines.filter((line) => line.shelf === shelf);
        if (lines.length === 0) return null;
        return (
          <section key={shelf} aria-label={SHELF_WORDS[shelf]} className="mb-4 max-w-4xl">
            <h2 className="mb-1 font-bold">{SHELF_WORDS[shelf]}</h2>
            <ul>
              {lines.map((line) => (
                <Line key={line.item} line={line} currency={currency} onHave={(count) => have(line, count)} />
              ))}
            </ul>
          </section>
        );
      })}
    </Bench>
  );
}

function Line({
  line,
  currency,
  onHave,
}: {
  line: MaterialLine;
  currency: string | undefined;
  onHave: (count: number) => void;
}) {
  const shown = (count: number) => (line.unit === 'mm' ? `${(count / 1000).toFixed(2)} m` : String(count));
  const missing = line.needed - line.inPackages - line.fitted;
  const done = line.toBuy === 0;
  return (
    <li
      aria-label={line.what}
      className="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-rule py-1"
    >
      <span className="w-16 text-right text-lg font-bold tabular-nums">{done ? '–' : shown(line.toBuy)}</span>
      <span className="min-w-44 flex-1">
        <span className="font-semibold">{line.what}</span>
        {line.detail && <span className="text-soft"> {line.detail}</span>}
        <span className="block text-sm text-soft">
          {shown(line.needed)} needed
          {line.inPackages > 0 && `, ${shown(line.inPackages)} come with the devices`}
          {line.fitted > 0 && `, ${shown(line.fitted)} fitted`}
          {line.inHand > 0 && `, ${shown(line.inHand)} in hand`}
          {line.boxIds.length > 0 && `; ${line.boxIds.length} ${line.boxIds.length === 1 ? 'box' : 'boxes'}`}
        </span>
      </span>
      <span className="flex w-full items-center justify-between gap-3 pl-19 sm:w-auto sm:pl-0">
        <span className="w-24 tabular-nums sm:text-right">
          {line.price === null ? '' : moneyText(line.price, currency)}
        </span>
        <Button
          aria-pressed={done && line.inHand > 0}
          disabled={missing === 0}
          onClick={() => onHave(done ? 0 : missing)}
        >
          {done && line.inHand > 0
            ? 'Not in hand after all'
            : missing === 0
              ? line.fitted > 0
                ? 'Fitted'
                : 'In the packages'
              : 'All in hand'}
        </Button>
      </span>
    </li>
  );
}
