import { describe, expect, test } from '@jest/globals';
import { assessBox } from '../enclosure/assess.js';
import { exampleJob } from '../test-support/examples.js';
import { cubicInches, ML_PER_IN3 } from '../units/volume.js';
import type { EditPart } from './edit/edit.js';
import { putPart, removePart } from './edit/parts.js';
import { reduce } from './edit/reduce.js';
import { figuresInUse, ruleFigures } from './figures.js';
import { lookup } from './lookup.js';
import type { Job } from './schema/job.js';
import { PracticeId } from './schema/primitives.js';
import type { Box } from './schema/survey.js';

describe.each(PracticeId.options)('in %s', (practice) => {
  test('every figure names its source and is one of its kind', () => {
    const figures = ruleFigures({ practice });
    expect(new Set(figures.map(({ id }) => id)).size).toBe(figures.length);
    for (const { source, name, value } of figures) {
      expect(source.length).toBeGreaterThan(5);
      expect(name.length).toBeGreaterThan(10);
      expect(value).toBeGreaterThan(0);
    }
  });

  test('every figure that can be read can be replaced, and is then the one in use', () => {
    const usual = figuresInUse({ practice });
    for (const { id, value } of ruleFigures({ practice }).filter(({ setOn }) => setOn === null)) {
      const job = { practice, overrides: [{ figure: id, value: value * 1.25, note: 'ours' }] };
      expect({ id, same: JSON.stringify(figuresInUse(job)) === JSON.stringify(usual) }).toEqual({
        id,
        same: false,
      });
      expect(ruleFigures(job).filter((figure) => figure.own)).toMatchObject([
        { id, value, own: { value: value * 1.25, note: 'ours' } },
      ]);
    }
  });
});

test('where 2.25 comes from: the 12 AWG allowance of the edition in force, with its table', () => {
  const of = (edition: '2017' | '2023') =>
    ruleFigures({ practice: 'us', edition }).find(({ id }) => id === 'fill.allowance.12AWG');
  expect(cubicInches(of('2023')?.value as number)).toBeCloseTo(2.25, 9);
  expect(of('2023')?.source).toBe('NEC 2023, Table 314.16(B)(1)');
  expect(of('2017')?.source).toBe('NEC 2017, Table 314.16(B)');
});

describe('a job with a figure of its own', () => {
  const galley = (overrides: Job['overrides']) => {
    const job = { ...exampleJob('galley'), ...(overrides ? { overrides } : {}) };
    return assessBox(job.boxes[0] as Box, lookup(job), 'found');
  };
  const usual = galley(undefined);
  const size = usual.lines.find((line) => line.rule === 'conductor')?.what as string;

  test('counts with it, line by line, and says so with the note', () => {
    const figure = `fill.allowance.${size}`;
    const line = (result: typeof usual) => result.lines.find((entry) => entry.rule === 'conductor');
    const own = galley([{ figure, value: 3 * ML_PER_IN3, note: 'the county counts more' }]);
    expect(cubicInches(line(own)?.eachMl as number)).toBeCloseTo(3, 3);
    expect(line(own)?.count).toBe(line(usual)?.count);
    expect(own.own).toMatchObject([{ id: figure, note: 'the county counts more' }]);
    expect(usual.own).toEqual([]);
  });

  test('of a size that is not in the box changes nothing and is not mentioned', () => {
    const own = galley([{ figure: 'fill.allowance.6AWG', value: 200, note: '' }]);
    expect([own.usedMl, own.own]).toEqual([usual.usedMl, []]);
  });

  test('leaves more or less room behind a device, and folds conductors its own way', () => {
    const deep = galley([
      { figure: 'depth.terminals', value: 40, note: '' },
      { figure: 'depth.leads', value: 40, note: '' },
    ]);
    expect(deep.depth.neededMm).toBe((usual.depth.deepest?.bodyMm as number) + 40);
    const folded = galley([{ figure: 'packing.folded-share', value: 0.2, note: '' }]);
    expect(folded.packing.shares.conductorsMl).toBeCloseTo(2 * usual.packing.shares.conductorsMl, 6);
  });
});

test('a figure of its own is set, changed and taken back by edits, and undone like any other', () => {
  const start = exampleJob('galley');
  const apply = (job: Job, parts: EditPart[]) => {
    const result = reduce(job, { parts });
    if (!result.ok) throw new Error(JSON.stringify(result.refusal));
    return result.job;
  };
  const set = apply(start, [
    putPart('override', 'depth.leads', { figure: 'depth.leads', value: 20, note: 'stiff leads' }),
  ]);
  expect(figuresInUse(set).clearance.leads).toBe(20);
  const changed = apply(set, [
    putPart('override', 'depth.leads', { figure: 'depth.leads', value: 18, note: 'measured' }),
  ]);
  expect(changed.overrides).toEqual([{ figure: 'depth.leads', value: 18, note: 'measured' }]);
  expect(figuresInUse(apply(changed, [removePart('override', 'depth.leads')])).clearance.leads).toBe(12);
});
