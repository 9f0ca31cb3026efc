import {
  type Job,
  type MaterialLine,
  type Materials,
  materialRows,
  materialsOf,
  moneyAmount,
  moneyText,
  mountedBoxes,
  type PlanChoice,
  plural,
  SHELF_WORDS,
  SHELVES,
  setParts,
  trialOf,
} from '@inventario/core';
import { FileSpreadsheet, Printer, Sheet } from 'lucide-react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { downloadCsv, downloadWorkbook } from '../../data/downloads.js';
import { useJob } from '../../data/job-context.js';
import { Bench } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { TrialNote } from '../../parts/trial-note.js';
import { Button } from '../../ui/button.js';
import { DataTable, type TableColumn } from '../../ui/data-table.js';
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
  const { job, known } = useJob();
  const materials = useMemo(() => materialsOf(known), [known]);
  const open = materials.lines.filter((line) => line.toBuy > 0).length;
  return (
    <Bench
      title="Materials"
      glance={`${open} lines to buy, ${moneyText(materials.total, job.money?.currency)}`}
      reckoning={<MaterialsReckoning materials={materials} />}
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
        return lines.length === 0 ? null : (
          <section key={shelf} aria-label={SHELF_WORDS[shelf]} className="mb-4 max-w-4xl">
            <h2 className="font-bold">{SHELF_WORDS[shelf]}</h2>
            <ShelfTable label={SHELF_WORDS[shelf]} lines={lines} />
          </section>
        );
      })}
    </Bench>
  );
}

function MaterialsReckoning({ materials }: { materials: Materials }) {
  const { job, known } = useJob();
  const trial = useMemo(
    () => (job.brief?.trialFirst ? trialOf(openChoices(job), known) : null),
    [job, known],
  );
  const { currency } = job.money ?? {};
  return (
    <div className="flex flex-col gap-3">
      <Downloads materials={materials} />
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
          {plural(materials.unpriced, 'line')} without a price in the catalogue: not in the sum.
        </p>
      )}
      <OpenBoxes boxIds={materials.openBoxIds} />
    </div>
  );
}

/** The list as files for a spreadsheet. */
function Downloads({ materials }: { materials: Materials }) {
  const { job } = useJob();
  const say = useSay();
  const { currency } = job.money ?? {};
  const rows = materialRows(materials.lines, currency);
  const amount = (minor: number) => moneyAmount(minor, currency);
  const estimate = [
    { item: 'Materials, all of them', amount: amount(materials.estimate - materials.labour.cost) },
    { item: `Work, ${materials.labour.minutes} minutes`, amount: amount(materials.labour.cost) },
    { item: 'Together', amount: amount(materials.estimate) },
  ];
  const sheets = [
    { name: 'Materials', rows },
    { name: 'Estimate', rows: estimate },
  ];
  const saved = (work: Promise<void>) =>
    work.catch((error: unknown) => say(`The file could not be made: ${String(error)}`));
  return (
    <>
      <Button
        kind="main"
        icon={FileSpreadsheet}
        disabled={rows.length === 0}
        onClick={() => saved(downloadWorkbook(job, 'materials', sheets))}
      >
        Save the list as a workbook
      </Button>
      <Button icon={Printer} onClick={() => window.print()}>
        Print the list
      </Button>
      <Button
        icon={Sheet}
        disabled={rows.length === 0}
        onClick={() => saved(downloadCsv(job, 'materials', rows))}
      >
        Save it as CSV
      </Button>
    </>
  );
}

const MOST_NAMED = 4;

/** Boxes whose joints are not all known yet: their connectors and tails are not all counted. */
function OpenBoxes({ boxIds }: { boxIds: readonly string[] }) {
  const { job, known } = useJob();
  if (boxIds.length === 0) return null;
  return (
    <p className="text-sm">
      Connectors and pigtails are counted from the joints known so far. Not labelled through:{' '}
      {boxIds.slice(0, MOST_NAMED).map((id, at) => (
        <span key={id}>
          {at > 0 && ', '}
          <Link className="underline" to={paths.box(job.id, id)}>
            {known.boxes.get(id)?.name}
          </Link>
        </span>
      ))}
      {boxIds.length > MOST_NAMED && ` and ${boxIds.length - MOST_NAMED} more`}.
    </p>
  );
}

const counted = (line: MaterialLine, count: number) =>
  line.unit === 'mm' ? `${(count / 1000).toFixed(2)} m` : String(count);

function ShelfTable({ label, lines }: { label: string; lines: readonly MaterialLine[] }) {
  const { job } = useJob();
  const currency = job.money?.currency;
  const columns = useMemo<TableColumn<MaterialLine>[]>(
    () => [
      {
        id: 'buy',
        head: 'To buy',
        value: ({ toBuy }) => toBuy,
        align: 'right',
        className: 'w-20 text-lg',
        cell: (line) => <strong>{line.toBuy === 0 ? '–' : counted(line, line.toBuy)}</strong>,
      },
      {
        id: 'what',
        head: 'What',
        names: true,
        value: ({ what }) => what,
        cell: (line) => <What line={line} currency={currency} />,
      },
      {
        id: 'price',
        head: 'Price',
        value: ({ price }) => price ?? 0,
        align: 'right',
        className: 'hidden w-28 sm:table-cell',
        cell: ({ price }) => (price === null ? '' : moneyText(price, currency)),
      },
      {
        id: 'hand',
        head: 'In hand',
        hideHead: true,
        align: 'right',
        className: 'sm:w-48',
        cell: (line) => <InHand line={line} />,
      },
    ],
    [currency],
  );
  return (
    <DataTable
      label={label}
      rows={lines}
      columns={columns}
      idOf={({ item }) => item}
      nameOf={({ what }) => what}
    />
  );
}

function What({ line, currency }: { line: MaterialLine; currency: string | undefined }) {
  const shown = (count: number) => counted(line, count);
  return (
    <>
      <span className="font-semibold">{line.what}</span>
      {line.detail && <span className="text-soft"> {line.detail}</span>}
      <span className="block text-sm text-soft">
        {shown(line.needed)} needed
        {line.inPackages > 0 && `, ${shown(line.inPackages)} come with the devices`}
        {line.fitted > 0 && `, ${shown(line.fitted)} fitted`}
        {line.inHand > 0 && `, ${shown(line.inHand)} in hand`}
        {line.boxIds.length > 0 && `; ${plural(line.boxIds.length, 'box', 'boxes')}`}
        {line.price !== null && <span className="sm:hidden">; {moneyText(line.price, currency)}</span>}
      </span>
    </>
  );
}

/** Everything that is missing is put in hand by one touch, and taken back by another. */
function InHand({ line }: { line: MaterialLine }) {
  const { job, apply } = useJob();
  const missing = line.needed - line.inPackages - line.fitted;
  const done = line.toBuy === 0;
  const have = (count: number) => {
    const inHand = { ...job.inHand, [line.item]: count };
    if (count === 0) delete inHand[line.item];
    apply(setParts('job', job.id, job, { inHand }), `In hand: ${line.what}`, `in-hand-${line.item}`);
  };
  const nothingMissing = line.fitted > 0 ? 'Fitted' : 'In the packages';
  const put = missing === 0 ? nothingMissing : 'Mark as in hand';
  return (
    <Button
      aria-pressed={done && line.inHand > 0}
      disabled={missing === 0}
      onClick={() => have(done ? 0 : missing)}
    >
      {done && line.inHand > 0 ? 'Not in hand' : put}
    </Button>
  );
}
