import type { Page } from '@playwright/test';
import { newHouse } from './driver/new-house.js';
import { Taps } from './driver/taps.js';
import { expect, expectAccessible, test } from './driver/test.js';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, colorScheme: 'dark' });

/** What the hidden wires of one box show: a conductor by what one sees of it. */
interface Truth {
  box: string;
  preset: RegExp;
  /** Place of the conductor fed from elsewhere while this device is out, by how the other switch is put. */
  fed: (far: string) => number;
  /** What volts and ohms show between the points named. */
  volts: (points: string, on: boolean, far: string) => string;
  ohms: (points: string) => string;
}

/** Nothing of a stair is known but its two boxes; each is read as the bar asks, until it asks no more. */
async function worked(page: Page, thumb: Taps, truth: Truth): Promise<void> {
  const bar = page.getByRole('status').filter({ hasText: /\S/ });
  let on = false;
  // How the other switch was left when the lamp had been watched.
  let far = 'down';
  for (let turn = 0; turn < 70; turn++) {
    await expect(bar.last()).not.toHaveText(/being weighed/);
    const asked = (await bar.last().textContent()) ?? '';
    const points = asked.split(': ')[1] ?? '';
    const hasKey = (name: string | RegExp) => thumb.key(name).isVisible();
    if (/^\d+ conductors? proved/.test(asked) || /^\d+ marks? by looks/.test(asked) || /^Label /.test(asked))
      return;
    if (/^What does the switch control/.test(asked)) await thumb.press(/^Hall ceiling/);
    else if (/^Work the switch/.test(asked)) await thumb.press(/^lit, changes with each/);
    else if (/^Signal here/.test(asked)) await thumb.press('3 bars');
    else if (/^(Switch|Clip )/.test(asked)) {
      on = !/off/.test(asked);
      await thumb.press(/breaker 12 is (on|off, locked)$/i);
    } else if (/^Prove it dead/.test(asked))
      await thumb.press((await hasKey(/under 5 V/)) ? /under 5 V/ : '119 V');
    else if (/^Take the device/.test(asked)) await thumb.press('Device out, conductors capped');
    else if (/^Put the device (at Hall, foot )?back/.test(asked)) await thumb.press('It is back in place');
    else if (/^Which of these/.test(asked)) await thumb.press(truth.preset);
    else if (/^Volume and depth/.test(asked)) await thumb.press(/^18\.00.*as Hall, stairs$/);
    else if (/^Take the lamps/.test(asked)) await thumb.press('Lamps are out');
    else if (/^Put the lamps/.test(asked)) await thumb.press('Lamps are back');
    else if (/^Put the switch/.test(asked)) {
      far = /up$/.test(asked) ? 'up' : 'down';
      await thumb.press(/^It is /);
    } else if (/^Indicator over/.test(asked))
      await thumb.tap(page.locator('[data-conductor]').nth(truth.fed(far)));
    else if (/^Volts/.test(asked)) await thumb.press(truth.volts(points, on, far));
    else if (/^Ohms/.test(asked)) await thumb.press(truth.ohms(points));
    else await thumb.press(/^Later/);
  }
}

test('a stair, switched from two places: both boxes are read from nothing by thumb, and counted', async ({
  page,
}) => {
  const stair = {
    positions: [{ index: 1, existing: 'three-way' as const, loadIds: ['pair-l1'], need: { smart: true } }],
  };
  const job = await newHouse(
    page,
    'pair',
    [
      { name: 'foot', ...stair },
      { name: 'head', ...stair },
    ],
    [
      {
        id: 'pair-g1',
        loadIds: ['pair-l1'],
        places: [
          { boxId: 'pair-foot', position: 1 },
          { boxId: 'pair-head', position: 1 },
        ],
      },
    ],
  );
  const counted: string[] = [];
  const boxes: Truth[] = [
    {
      box: 'pair-foot',
      preset: /^Three-way, line side/,
      // Cable A goes to the far switch: red, black, white, bare; cable B is the feed.
      fed: () => 4,
      volts: (points, on) => (on && /black of .*B/.test(points) ? '119 V' : '0 V'),
      ohms: (points) => (/white|bare/.test(points) && !/black|red/.test(points) ? '0.3 ohm' : 'open'),
    },
    {
      box: 'pair-head',
      preset: /^Three-way, load side/,
      // The line comes over the one traveler or the other.
      fed: (far) => (far === 'down' ? 0 : 1),
      volts: (points, on, far) =>
        on && (far === 'down' ? /black of .*A/ : /red of .*A/).test(points) ? '119 V' : '0 V',
      ohms: (points) => (/white|bare/.test(points) && !/black|red/.test(points) ? '0.3 ohm' : 'open'),
    },
  ];
  for (const truth of boxes)
    await test.step(truth.box, async () => {
      const thumb = new Taps(page);
      await page.goto(`${job}/box/${truth.box}`);
      await worked(page, thumb, truth);
      await expectAccessible(page);
      counted.push(`${truth.box}: ${thumb.taps} taps, ${thumb.scrolls} scrolls`, ...thumb.said);
      expect(thumb.taps, counted.join('\n')).toBeLessThanOrEqual(32);
      expect(thumb.scrolls, counted.join('\n')).toBeLessThanOrEqual(6);
    });
  // The foot was left open: its switch cannot be worked from the head until its device is back.
  expect(counted.filter((line) => line.endsWith(' It is back in place'))).toHaveLength(1);
  await page.goto(`${job}/box/pair-foot`);
  await expect(page.locator('[data-conductor]').nth(4)).toHaveAccessibleName(/: line, proved$/);
  await expect(page.locator('[data-conductor]').nth(2)).toHaveAccessibleName(/: neutral, proved$/);
});
