import type { MaterialLine } from '../materials/vocabulary.js';
import { moneyAmount } from '../units/money.js';
import { SHELF_WORDS } from './words/materials.js';

/**
 * A line of the list as a row of a table; money in whole units of the currency, lengths in metres. Empty
 * where nothing is known.
 */
export function materialRows(
  lines: readonly MaterialLine[],
  currency: string | undefined,
): Record<string, string | number>[] {
  const amount = (minor: number | null) => (minor === null ? '' : moneyAmount(minor, currency));
  return lines.map((line) => {
    const count = (value: number) => (line.unit === 'mm' ? value / 1000 : value);
    return {
      shelf: SHELF_WORDS[line.shelf],
      what: line.what,
      detail: line.detail,
      unit: line.unit === 'mm' ? 'm' : 'piece',
      needed: count(line.needed),
      'in packages': count(line.inPackages),
      fitted: count(line.fitted),
      'in hand': count(line.inHand),
      'to buy': count(line.toBuy),
      'price each': amount(line.priceEach),
      price: amount(line.price),
      boxes: line.boxIds.length,
    };
  });
}
