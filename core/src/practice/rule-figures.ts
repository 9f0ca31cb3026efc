import type { Job } from '../job/schema/job.js';
import type { PracticeId, WireSize } from '../job/schema/primitives.js';
import { POWER_FACTOR } from '../loads/demand.js';
import { RATING_MARGIN } from '../loads/rating.js';
import { millilitres } from '../units/volume.js';
import { CLEARANCE, existingBody } from './bodies.js';
import { CA_DEEP_DEVICE, FILL_FIGURES, type FillFigures, methodOf } from './fill-figures.js';
import { standardBoxes } from './standard-boxes.js';
import { COPPER_AMPS, type Gauge, WIRE } from './wire.js';
import { LOAD_WORDS } from './words.js';

/** A figure that a rule rests on, with where it is from. A job may set one of its own, with a note. */
export interface RuleFigure {
  id: string;
  group: 'fill' | 'depth' | 'packing' | 'loads' | 'conductor' | 'boxes' | 'bodies';
  name: string;
  unit: 'mL' | 'mm' | 'mL/mm' | 'count' | 'share' | 'A';
  value: number;
  source: string;
  /** Where it is set instead, for one box, load or device; null: here, for the whole job. */
  setOn: 'load' | 'enclosure' | 'device' | null;
  own: { value: number; note: string } | null;
}

/** Every figure as the engines use it: the job's own where it set one. */
export interface FiguresInUse {
  /** null where the practice has no count. */
  fill: (FillFigures & { deepDevice: { from: number; mlPerMm: number } }) | null;
  clearance: { terminals: number; leads: number };
  packing: { foldedShare: number; comfortable: number; closes: number };
  copperAmps: Partial<Record<WireSize, number>>;
  /** Share of a rating that a channel should keep to. */
  margin: number;
}

/**
 * Folded conductors fill a space only to this share; up to the next a box closes with ease, up to the last it
 * closes.
 */
const PACKING = { foldedShare: 0.4, comfortable: 0.75, closes: 1 };

type Rows = (Omit<RuleFigure, 'own' | 'setOn'> & Partial<Pick<RuleFigure, 'setOn'>>)[];

const ESTIMATE = 'An estimate of this program, not a code rule';

/** What can be read and replaced, for the practice and edition of a job, in reading order. */
export function ruleFigures(job: Pick<Job, 'practice' | 'edition' | 'overrides'>): RuleFigure[] {
  const own = new Map(
    (job.overrides ?? []).map(({ figure, value, note }) => [figure, { value, note: note ?? '' }]),
  );
  return rowsOf(job).map((row) => ({ setOn: null, ...row, own: own.get(row.id) ?? null }));
}

function rowsOf(job: Pick<Job, 'practice' | 'edition'>): Rows {
  const method = methodOf(job);
  const rows: Rows = [];
  if (method !== 'none') {
    const figures = FILL_FIGURES[method];
    const code = method === 'cec-12-3034' ? 'CE Code' : `NEC ${method.slice(4)}`;
    for (const [gauge, value] of Object.entries(figures.allowance))
      rows.push({
        id: `fill.allowance.${gauge}`,
        group: 'fill',
        name: `Volume a conductor of ${gauge.replace('AWG', ' AWG')} counts`,
        unit: 'mL',
        value,
        source: `${code}, ${figures.table}`,
      });
    if (Number.isFinite(figures.loopFrom))
      rows.push({
        id: 'fill.loop-from',
        group: 'fill',
        name: 'A loop this long or longer counts twice',
        unit: 'mm',
        value: figures.loopFrom,
        source: `${code}, ${figures.clauses.loop}: twice the free length of 300.14`,
      });
    if (Number.isFinite(figures.groundsTogether))
      rows.push({
        id: 'fill.grounds-together',
        group: 'fill',
        name: 'Grounds that count once together; each further one a quarter',
        unit: 'count',
        value: figures.groundsTogether,
        source: `${code}, ${figures.clauses.ground}`,
      });
    if (method === 'cec-12-3034')
      rows.push(
        {
          id: 'fill.deep-device',
          group: 'fill',
          name: 'A device deeper than this counts by its depth',
          unit: 'mm',
          value: CA_DEEP_DEVICE.from,
          source: 'CE Code, 12-3034',
        },
        {
          id: 'fill.deep-device-volume',
          group: 'fill',
          name: 'Volume each mm of a deep device counts',
          unit: 'mL/mm',
          value: CA_DEEP_DEVICE.mlPerMm,
          source: 'CE Code, 12-3034',
        },
      );
  }
  rows.push(
    {
      id: 'depth.terminals',
      group: 'depth',
      name: 'Room behind a device with terminals only',
      unit: 'mm',
      value: CLEARANCE.terminals,
      source: ESTIMATE,
    },
    {
      id: 'depth.leads',
      group: 'depth',
      name: 'Room behind a device with leads',
      unit: 'mm',
      value: CLEARANCE.leads,
      source: ESTIMATE,
    },
    {
      id: 'packing.folded-share',
      group: 'packing',
      name: 'Share of a space that folded conductors fill',
      unit: 'share',
      value: PACKING.foldedShare,
      source: ESTIMATE,
    },
    {
      id: 'packing.comfortable',
      group: 'packing',
      name: 'Up to this occupancy a box closes with ease',
      unit: 'share',
      value: PACKING.comfortable,
      source: ESTIMATE,
    },
    {
      id: 'packing.closes',
      group: 'packing',
      name: 'Up to this occupancy a box closes',
      unit: 'share',
      value: PACKING.closes,
      source: ESTIMATE,
    },
  );
  rows.push({
    id: 'loads.margin',
    group: 'loads',
    name: 'Share of a rating to keep to; the limit of motors on a relay',
    unit: 'share',
    value: RATING_MARGIN,
    source: 'A design margin of this program',
  });
  for (const [kind, factor] of Object.entries(POWER_FACTOR))
    rows.push({
      id: `loads.power-factor.${kind}`,
      group: 'loads',
      name: `Power factor of ${LOAD_WORDS[kind as keyof typeof LOAD_WORDS]}, unless it is known`,
      unit: 'count',
      value: factor,
      source: 'Usual for the kind, an estimate',
      setOn: 'load',
    });
  if (job.practice === 'us' || job.practice === 'ca')
    for (const [size, amps] of Object.entries(COPPER_AMPS))
      rows.push({
        id: `conductor.amps.${size}`,
        group: 'conductor',
        name: `The breaker that goes with ${size.replace('AWG', ' AWG')} copper`,
        unit: 'A',
        value: amps,
        source: job.practice === 'us' ? 'NEC 240.4(D)' : 'CE Code, Rule 14-104',
      });
  for (const box of standardBoxes(job.practice))
    rows.push({
      id: `boxes.${box.id}`,
      group: 'boxes',
      name: `Volume of ${box.name}`,
      unit: 'mL',
      value: millilitres(box) ?? 0,
      source: BOX_SOURCES[job.practice],
      setOn: 'enclosure',
    });
  for (const existing of BODIES) {
    const body = existingBody(existing, 1, job.practice);
    rows.push({
      id: `bodies.${existing}`,
      group: 'bodies',
      name: `Depth of a ${existing.replace('-', ' ')} that nobody measured`,
      unit: 'mm',
      value: body.depth,
      source: ESTIMATE,
      setOn: 'device',
    });
  }
  return rows;
}

const BODIES = [
  'single-pole',
  'three-way',
  'four-way',
  'dimmer',
  'fan-control',
  'timer',
  'sensor',
  'receptacle',
] as const;

const BOX_SOURCES: Record<PracticeId, string> = {
  us: 'NEC Table 314.16(A)',
  ca: 'CE Code, Table 23',
  gb: 'Inside measures, no count stands on them',
  modular: 'Inside measures, no count stands on them',
};

const inUse = new WeakMap<object, FiguresInUse>();

/** The figures of a job; computed once for each job as it stands. */
export function figuresInUse(job: Pick<Job, 'practice' | 'edition' | 'overrides'>): FiguresInUse {
  let known = inUse.get(job);
  if (!known) {
    known = compute(job);
    inUse.set(job, known);
  }
  return known;
}

function compute(job: Pick<Job, 'practice' | 'edition' | 'overrides'>): FiguresInUse {
  const own = new Map((job.overrides ?? []).map(({ figure, value }) => [figure, value]));
  const value = (id: string, usual: number) => own.get(id) ?? usual;
  const method = methodOf(job);
  const base = method === 'none' ? null : FILL_FIGURES[method];
  return {
    fill: base && {
      ...base,
      allowance: Object.fromEntries(
        Object.entries(base.allowance).map(([gauge, ml]) => [gauge, value(`fill.allowance.${gauge}`, ml)]),
      ) as Record<Gauge, number>,
      loopFrom: value('fill.loop-from', base.loopFrom),
      groundsTogether: value('fill.grounds-together', base.groundsTogether),
      deepDevice: {
        from: value('fill.deep-device', CA_DEEP_DEVICE.from),
        mlPerMm: value('fill.deep-device-volume', CA_DEEP_DEVICE.mlPerMm),
      },
    },
    clearance: {
      terminals: value('depth.terminals', CLEARANCE.terminals),
      leads: value('depth.leads', CLEARANCE.leads),
    },
    packing: {
      foldedShare: value('packing.folded-share', PACKING.foldedShare),
      comfortable: value('packing.comfortable', PACKING.comfortable),
      closes: value('packing.closes', PACKING.closes),
    },
    margin: value('loads.margin', RATING_MARGIN),
    copperAmps: Object.fromEntries(
      Object.entries(COPPER_AMPS).map(([size, amps]) => [size, value(`conductor.amps.${size}`, amps)]),
    ) as FiguresInUse['copperAmps'],
  };
}

/** The figure that an allowance of a conductor's size rests on; null for what counts by something else. */
export function figureOfAllowance(size: WireSize | null): string | null {
  return size && `fill.allowance.${WIRE[size].gauge}`;
}
