import { describe, expect, test } from '@jest/globals';
import { toHaveText } from '../findings/words/before-leaving.js';
import { lookup } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import { exampleJob } from '../test-support/examples.js';
import { beforeLeaving, type ToHave } from './before-leaving.js';

function packed(change: (job: Job) => void = () => undefined) {
  const job = exampleJob('sail-loft');
  change(job);
  const known = lookup(job);
  return {
    ...beforeLeaving(
      job.boxes.map(({ id }) => id),
      known,
    ),
    known,
  };
}

const keys = (list: readonly ToHave[]) => list.map(({ key }) => key);

describe('before anybody leaves', () => {
  test('tools by what the chosen devices and joints ask for', () => {
    const { van } = packed();
    expect(keys(van)).toEqual(expect.arrayContaining(['tester', 'meter', 'headlamp', 'screw-drive']));
    expect(keys(van).some((key) => key.startsWith('strip:'))).toBe(true);
    expect(keys(van).some((key) => key.startsWith('connector:'))).toBe(true);
    expect(keys(van)).not.toContain('ladder');
    const module = packed((job) => {
      for (const device of job.catalogue.devices) device.mount = 'fitting';
    });
    expect(keys(module.van)).toContain('ladder');
    const push = packed((job) => {
      for (const device of job.catalogue.devices)
        for (const terminal of device.terminals) terminal.form = 'push-in';
    });
    expect(keys(push.van)).toContain('push-in');
    expect(keys(push.van)).not.toContain('screw-drive');
  });

  test('old paint by the year the house was built', () => {
    const of = (builtYear: number) =>
      keys(
        packed((job) => {
          job.site = { ...job.site, builtYear };
        }).van,
      );
    expect(of(1957)).toContain('painted');
    expect(of(2015)).not.toContain('painted');
  });

  test('the phone by the makers: an account that is on record is not asked for again', () => {
    const { phone, known } = packed();
    const makers = [...new Set(known.job.catalogue.devices.map(({ maker }) => maker))];
    const asked = keys(phone).filter((key) => key.startsWith('maker-account:'));
    expect(asked.length).toBeGreaterThan(0);
    const all = packed((job) => {
      job.accounts = makers.map((maker, at) => ({ id: `a${at}`, maker }));
    });
    expect(keys(all.phone).some((key) => key.startsWith('maker-account'))).toBe(false);
    expect(keys(all.phone)).not.toContain('mail-code');
  });

  test('the signal is read at boxes of Wi-Fi devices where nobody did', () => {
    const { signal } = packed((job) => {
      for (const device of job.catalogue.devices) device.radio = 'wifi';
      for (const box of job.boxes) delete box.signal;
      const [box] = job.boxes;
      if (box) box.signal = { bars: 3 };
    });
    const job = exampleJob('sail-loft');
    expect(signal).toEqual(job.boxes.slice(1).map(({ id }) => id));
  });

  test('nothing to do asks for nothing of a box', () => {
    const known = lookup(exampleJob('sail-loft'));
    const none = beforeLeaving([], known);
    expect(keys(none.van)).toEqual(['headlamp', 'hand-tools']);
    expect([none.phone, none.client, none.signal]).toEqual([[], [], []]);
  });

  test('every line is a sentence', () => {
    const { van, phone, client, known } = packed();
    for (const item of [...van, ...phone, ...client])
      expect(toHaveText(item, known, 'inch')).toMatch(/^[A-Z0-9].{5,}[^.]$/);
  });
});
