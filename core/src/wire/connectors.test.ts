import { describe, expect, test } from '@jest/globals';
import type { Connector } from '../job/schema/catalogue.js';
import type { WireSize } from '../job/schema/primitives.js';
import { USUAL_CONNECTORS } from '../practice/connectors.js';
import { profileOf } from '../practice/profiles.js';
import { WIRE } from '../practice/wire.js';
import { Random } from '../test-support/random.js';
import { type BundleMember, chooseConnector, connectorRange, foundConnector } from './connectors.js';

const small: Connector = {
  id: 'small',
  price: 0,
  kind: 'twist-on',
  mL: 1,
  conductors: [2, 3],
  section: [1.5, 6.5],
};
const large: Connector = {
  id: 'large',
  price: 0,
  kind: 'twist-on',
  mL: 3,
  conductors: [2, 6],
  section: [4, 20],
};
const lever: Connector = { id: 'lever', price: 0, kind: 'lever', mL: 2, ports: 3, section: [0.5, 4] };
const range = connectorRange([large, small, lever]);
const bundle = (...sizes: WireSize[]): BundleMember[] => sizes.map((size) => ({ size }));

describe('the range', () => {
  test('is by volume, and the catalogue’s of a kind stand for the usual ones of that kind', () => {
    expect(range.map(({ ml }) => ml)).toEqual([...range.map(({ ml }) => ml)].sort((a, b) => a - b));
    const kinds = new Set(['twist-on', 'lever']);
    expect(range.filter(({ kind }) => kinds.has(kind)).map(({ id }) => id)).toEqual([
      'small',
      'lever',
      'large',
    ]);
    const others = USUAL_CONNECTORS.filter(({ kind }) => !kinds.has(kind)).map(({ id }) => id);
    expect(range.map(({ id }) => id)).toEqual(expect.arrayContaining(others));
  });

  test('is made once for a catalogue', () => {
    const catalogue = [small];
    expect(connectorRange(catalogue)).toBe(connectorRange(catalogue));
  });

  test('a lever takes a conductor a port, whatever it says of conductors', () => {
    const generous: Connector = { ...lever, conductors: [2, 8] };
    expect(connectorRange([generous]).find(({ id }) => id === 'lever')?.conductors).toEqual([2, 3]);
  });
});

describe('the connector of a bundle', () => {
  const chosen = (members: BundleMember[], kinds: Connector['kind'][] = ['twist-on']) =>
    chooseConnector(members, kinds, range)?.id;

  test('is the smallest that holds it', () => {
    expect(chosen(bundle('14AWG', '14AWG'))).toBe('small');
    // Three of 2.08 mm2 are 6.24 and go into the small one; four are one too many for it.
    expect(chosen(bundle('14AWG', '14AWG', '14AWG'))).toBe('small');
    expect(chosen(bundle('14AWG', '14AWG', '14AWG', '14AWG'))).toBe('large');
    // Two of 12 AWG are 6.62: over its 6.5.
    expect(chosen(bundle('12AWG', '12AWG'))).toBe('large');
  });

  test('a limit that is met exactly is met, whatever binary sums make of it', () => {
    const total = WIRE['14AWG'].section + WIRE['14AWG'].section + WIRE['18AWG'].section;
    const exact: Connector = { ...small, id: 'exact', section: [total, total] };
    const members = bundle('14AWG', '18AWG', '14AWG');
    expect(chooseConnector(members, ['twist-on'], connectorRange([exact]))?.id).toBe('exact');
  });

  test('of the first kind that holds it: preference goes before size', () => {
    expect(chosen(bundle('14AWG', '14AWG'), ['lever', 'twist-on'])).toBe('lever');
    expect(chosen(bundle('14AWG', '14AWG', '14AWG', '14AWG'), ['lever', 'twist-on'])).toBe('large');
  });

  test('levers look at each conductor, twist-ons at the bundle', () => {
    // 10 AWG is 5.26 mm2: over a port's 4, within the bundle's 20.
    expect(chosen(bundle('10AWG', '14AWG'), ['lever'])).toBeUndefined();
    expect(chosen(bundle('10AWG', '14AWG'), ['twist-on'])).toBe('large');
  });

  test('none takes aluminium, and none a conductor alone', () => {
    expect(
      chosen([{ size: '12AWG', aluminium: true }, { size: '12AWG' }], ['twist-on', 'lever']),
    ).toBeUndefined();
    expect(chosen(bundle('12AWG'), ['twist-on', 'lever'])).toBeUndefined();
  });

  test('agrees with a plain search over every connector, on random bundles and catalogues', () => {
    const random = new Random(7);
    const sizes: WireSize[] = ['18AWG', '16AWG', '14AWG', '12AWG', '10AWG'];
    let found = 0;
    for (let round = 0; round < 300; round++) {
      const catalogue = Array.from({ length: 5 }, (_, at): Connector => {
        const least = random.int(0, 3);
        return {
          id: `k${at}`,
          price: 0,
          kind: random.chance(0.5) ? 'twist-on' : 'lever',
          mL: 1 + random.int(0, 39) / 10 + at / 1000,
          conductors: [2, 2 + random.int(0, 4)],
          section: [least, least + 1 + random.int(0, 19)],
          ports: 2 + random.int(0, 3),
        };
      });
      const members = bundle(...Array.from({ length: 1 + random.int(0, 5) }, () => random.pick(sizes)));
      const kind: Connector['kind'] = random.chance(0.5) ? 'twist-on' : 'lever';
      const fits = catalogue.filter((connector) => {
        const [low = 0, high = 99] = connector.section ?? [];
        const [, most = 99] = connector.conductors ?? [];
        if (connector.kind !== kind || members.length < 2 || members.length > most) return false;
        const sections = members.map(({ size }) => WIRE[size].section);
        if (kind === 'lever')
          return (
            members.length <= (connector.ports ?? 99) && sections.every((mm2) => mm2 >= low && mm2 <= high)
          );
        const sum = Math.round(sections.reduce((all, mm2) => all + mm2, 0) * 1e6) / 1e6;
        return sum >= low && sum <= high;
      });
      const expected = fits.reduce<Connector | undefined>(
        (least, next) => (least === undefined || (next.mL ?? 0) < (least.mL ?? 0) ? next : least),
        undefined,
      );
      if (!catalogue.some((connector) => connector.kind === kind)) continue;
      if (expected) found += 1;
      expect(chooseConnector(members, [kind], connectorRange(catalogue))?.id).toBe(expected?.id);
    }
    expect(found).toBeGreaterThan(50);
  });
});

describe('the connector of a joint as found', () => {
  const us = profileOf({ practice: 'us' });
  test('that holds too much is the largest of its kind: it is there all the same', () => {
    const many = bundle(...Array.from({ length: 9 }, (): WireSize => '12AWG'));
    expect(foundConnector('twist-on', many, us, range)?.id).toBe('large');
  });

  test.each(['unknown', 'other'] as const)('%s counts as the usual one of the practice', (kind) => {
    const members = bundle('14AWG', '14AWG');
    expect(foundConnector(kind, members, us, range)?.kind).toBe(us.connectors.usual);
  });
});
