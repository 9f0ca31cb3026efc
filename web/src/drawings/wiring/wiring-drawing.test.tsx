import '@testing-library/jest-dom/jest-globals';
import { againstChoice, type Job, lookup, wiringOfHouse, wiringPicture } from '@inventario/core';
import { describe, expect, jest, test } from '@jest/globals';
import { fireEvent, render, screen } from '@testing-library/react';
import { Random } from '../../../../core/src/test-support/random.js';
import { trueHouse } from '../../../../core/src/test-support/true-house.js';
import { svgText } from '../../data/downloads.js';
import { exampleJob } from '../../test-support/example-job.js';
import { layWiring } from './layout.js';
import { WiringDrawing } from './wiring-drawing.js';

function pictures(job: Job) {
  const known = lookup(job);
  return wiringOfHouse(known, againstChoice(known)).map((wiring) => ({
    known,
    wiring,
    picture: wiringPicture(wiring, known),
  }));
}

describe('the layout of a wiring', () => {
  const made = Array.from({ length: 40 }, (_, seed) => trueHouse(new Random(seed + 1)).job);

  test('draws each conductor once, down to where it ends, inside the sheet', () => {
    for (const job of made)
      for (const { picture } of pictures(job)) {
        const layout = layWiring(picture, () => ['1 neutral, breaker 1', '3 in, medium']);
        for (const { cores } of picture.cables)
          for (const { name, to } of cores) {
            const own = layout.strands.filter(({ names }) => names[0] === name);
            expect([name, own.length]).toEqual([name, 1]);
            if (to && 'joint' in to) expect(own[0]?.names).toContain(`joint:${to.joint}`);
          }
        for (const { d } of layout.strands) {
          expect(d).not.toMatch(/NaN|undefined|Infinity/);
          for (const [, x] of d.matchAll(/[ML](-?[\d.]+) /g))
            expect(Number(x)).toBeLessThanOrEqual(layout.width);
        }
        expect(new Set(layout.cores.map(({ x }) => x)).size).toBe(layout.cores.length);
      }
  });

  test('no bar lies over another, and as many dots are in each as ends go in', () => {
    for (const job of made)
      for (const { picture } of pictures(job)) {
        const { bars } = layWiring(picture, () => ['1 neutral', '3 in']);
        bars.forEach((bar, at) => {
          const joint = picture.joints.find(({ id }) => id === bar.jointId);
          expect([bar.jointId, bar.dots.length]).toEqual([bar.jointId, joint?.count]);
          for (const other of bars.slice(at + 1))
            if (other.y === bar.y) expect(other.from > bar.to || bar.from > other.to).toBe(true);
        });
      }
  });

  test('what passes bars crosses as few of them as exchanging any two could bring about', () => {
    // A lead straight below its conductor, in a box where nothing else is, crosses nothing.
    const [pantry] = pictures(exampleJob('pantry'));
    const { bars, strands } = layWiring(
      pantry?.picture ?? { cables: [], panels: [], joints: [], pieces: [] },
      () => ['1'],
    );
    const passing = bars.flatMap((bar) =>
      strands.filter(({ d, names }) => {
        const [, x, from, to] = /^M([\d.]+) ([\d.]+)V([\d.]+)$/.exec(d)?.map(Number) ?? [];
        if (x === undefined || from === undefined || to === undefined) return false;
        const inside = x > bar.from && x < bar.to && Math.min(from, to) < bar.y && bar.y < Math.max(from, to);
        return inside && !names.includes(`joint:${bar.jointId}`);
      }),
    );
    expect(passing.length).toBeLessThanOrEqual(6);
  });
});

describe('the drawing', () => {
  const draw = (lit: ReadonlySet<string> | null, onPick = jest.fn<(key: string) => void>()) => {
    const [first] = pictures(exampleJob('pantry'));
    if (!first) throw new Error('the pantry has a wiring');
    const shown = render(
      <WiringDrawing
        picture={first.picture}
        known={first.known}
        lit={lit}
        onPick={onPick}
        label="Pantry as planned"
        panelName={() => 'Device'}
      />,
    );
    return { ...shown, onPick, first };
  };

  test('says of each joint what goes in, and lights it at a touch or a key', () => {
    const { onPick, first } = draw(null);
    for (const { number, count } of first.picture.joints)
      expect(
        screen.getByRole('button', { name: new RegExp(`^Light joint ${number} .*, ${count} in`) }),
      ).toBeInTheDocument();
    const neutral = screen.getByRole('button', { name: /neutral/ });
    fireEvent.click(neutral);
    fireEvent.keyDown(neutral, { key: 'Enter' });
    fireEvent.keyDown(neutral, { key: 'a' });
    expect(onPick.mock.calls.map(([key]) => key)).toEqual(['joint:pantry-jw', 'joint:pantry-jw']);
    fireEvent.click(screen.getByRole('button', { name: 'Light Device' }));
    expect(onPick).toHaveBeenLastCalledWith('position-1');
  });

  test('what is not lit is pale', () => {
    const { container } = draw(new Set(['joint:pantry-jw']));
    expect(container.querySelectorAll('[data-lit]')).toHaveLength(1);
    const words = (name: RegExp) => Number(screen.getByRole('button', { name }).getAttribute('opacity'));
    expect(words(/neutral/)).toBe(1);
    expect(words(/line/)).toBeLessThan(0.5);
  });

  test('as a file it stands by itself', () => {
    const { container } = draw(null);
    const drawing = container.querySelector('svg') as Element;
    (drawing as SVGElement).style.setProperty('--joint', '#343b40');
    const text = svgText(drawing);
    expect(text).toMatch(/^<svg[^>]+xmlns="http:\/\/www\.w3\.org\/2000\/svg"/);
    expect(text).toContain('#343b40');
    expect(text).not.toContain('var(--joint)');
  });
});
