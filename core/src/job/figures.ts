import type { CountingRule } from '../practice/counting.js';
import type { RuleFigure } from '../practice/figures/figure.js';
import { figuresOf } from '../practice/figures/list.js';
import type { PracticeProfile } from '../practice/profile.js';
import { profileOf } from '../practice/profiles.js';
import { type Gauge, WIRE } from '../practice/wire.js';
import type { Edition, WireSize } from '../terms/trade.js';
import { KeptWhile, perObject, sameEntries } from '../units/kept.js';
import type { Job } from './schema/job.js';

type FigureSource = Pick<Job, 'practice' | 'edition' | 'overrides'>;

/** A figure as a job has it: its own, with a note, where it set one. */
export interface JobFigure extends RuleFigure {
  own: { value: number; note: string } | null;
}

/** What can be read and replaced, for the practice and edition of a job, in reading order. */
export function ruleFigures(job: FigureSource): JobFigure[] {
  const own = new Map(
    (job.overrides ?? []).map(({ figure, value, note }) => [figure, { value, note: note ?? '' }]),
  );
  return figuresOf(profileOf(job), job.edition).map((row) => ({ ...row, own: own.get(row.id) ?? null }));
}

/** The figures of a counting rule, as a job has them. Volumes mL, lengths mm. */
interface FillFigures {
  allowance: Record<Gauge, number>;
  /** A loop this long or longer counts twice; Infinity: none does. */
  loopFrom: number;
  /** Beyond how many grounds each further one counts a quarter; Infinity: all together always count once. */
  groundsTogether: number;
  /** A device deeper than this counts by its depth. */
  deepDevice: { from: number; mlPerMm: number };
}

/** Every figure as the engines use it: the job's own where it set one. */
export interface FiguresInUse {
  /** null where the practice has no count. */
  fill: (CountingRule & FillFigures) | null;
  clearance: { terminals: number; leads: number };
  /** Share that folded conductors fill, occupancy up to which a box closes with ease, and closes at all. */
  packing: { foldedShare: number; comfortable: number; closes: number };
  /** What copper of a size may be protected at, A; empty where the practice has no such rule. */
  copperAmps: Partial<Record<WireSize, number>>;
  /** Share of a rating that a channel should keep to; the limit of motors on a relay. */
  margin: number;
}

/** The figures of a job; computed once for each job as it stands, and once for all that set none. */
export const figuresInUse: (job: FigureSource) => FiguresInUse = perObject((job: FigureSource) =>
  job.overrides?.length ? compute(job) : usualFigures.of(profileOf(job), [job.edition], () => compute(job)),
);

const usualFigures = new KeptWhile<PracticeProfile, FiguresInUse>(sameEntries);

function compute(job: FigureSource): FiguresInUse {
  const figures = new Map(
    ruleFigures(job).map(({ id, value, own, setOn }) => [id, setOn === null ? (own?.value ?? value) : value]),
  );
  const value = (id: string) => {
    const found = figures.get(id);
    if (found === undefined) throw new Error(`No figure "${id}" in the practice "${job.practice}"`);
    return found;
  };
  const rule = profileOf(job).count?.(job.edition) ?? null;
  return {
    fill: rule && {
      ...rule,
      allowance: named(figures, 'fill.allowance.') as Record<Gauge, number>,
      loopFrom: figures.get('fill.loop-from') ?? Number.POSITIVE_INFINITY,
      groundsTogether: figures.get('fill.grounds-together') ?? Number.POSITIVE_INFINITY,
      deepDevice: {
        from: figures.get('fill.deep-device') ?? Number.POSITIVE_INFINITY,
        mlPerMm: figures.get('fill.deep-device-volume') ?? 0,
      },
    },
    clearance: { terminals: value('depth.terminals'), leads: value('depth.leads') },
    packing: {
      foldedShare: value('packing.folded-share'),
      comfortable: value('packing.comfortable'),
      closes: value('packing.closes'),
    },
    margin: value('loads.margin'),
    copperAmps: named(figures, 'conductor.amps.'),
  };
}

/** The figures whose ids begin so, by the rest of the id. */
function named(figures: ReadonlyMap<string, number>, start: string): Record<string, number> {
  return Object.fromEntries(
    [...figures].flatMap(([id, value]) => (id.startsWith(start) ? [[id.slice(start.length), value]] : [])),
  );
}

/** The figure that an allowance of a conductor's size rests on; null for what counts by something else. */
export function figureOfAllowance(size: WireSize | null): string | null {
  return size && `fill.allowance.${WIRE[size].gauge}`;
}

/** The edition of the code a job goes by; null where its practice has none to choose. */
export function editionOf(job: Pick<Job, 'practice' | 'edition'>): Edition | null {
  const { editions } = profileOf(job);
  return editions && (job.edition ?? editions.usual);
}
