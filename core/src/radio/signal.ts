import type { Box } from '../job/schema/survey.js';

/**
 * Bars from the reading at the box, dBm, lowest value of each: 4 at -55 and up, 3 at -65, 2 at -72, 1 at -80,
 * 0 below.
 */
const BARS: readonly (readonly [bars: number, from: number])[] = [
  [4, -55],
  [3, -65],
  [2, -72],
  [1, -80],
];

/** A metal plate on a metal box takes this much, dB. */
const METAL_LOSS = 10;

/** The least to go ahead with on Wi-Fi; between one bar and this a repeater has to be thought of. */
export const ENOUGH_BARS = 2;

export interface BoxSignal {
  bars: number;
  /** dBm at the device, as far as known: of bars only the lowest value they stand for. */
  rssi: number;
  /** dB lost to a metal plate on a metal box. */
  lost: number;
}

function barsOf(rssi: number): number {
  return BARS.find(([, from]) => rssi >= from)?.[0] ?? 0;
}

/**
 * The signal a device in this box would have; null where nobody read it. Source: the reading at the box, less
 * what metal takes.
 */
export function signalAt(box: Box): BoxSignal | null {
  const { signal } = box;
  if (!signal) return null;
  const lost = box.enclosure.material === 'metal' && box.enclosure.plate === 'metal' ? METAL_LOSS : 0;
  const read = 'rssi' in signal ? signal.rssi : (BARS.find(([bars]) => bars === signal.bars)?.[1] ?? -90);
  const rssi = read - lost;
  // Bars as they were read stand unless metal takes from them: their lowest value must not turn into fewer by
  // itself.
  return { bars: lost === 0 && 'bars' in signal ? signal.bars : barsOf(rssi), rssi, lost };
}
