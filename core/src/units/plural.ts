/**
 * A count with its noun.
 * @example plural(1, 'side') // '1 side'; plural(3, 'side') // '3 sides'; plural(2, 'box', 'boxes') // '2
 * boxes'
 */
export function plural(count: number | string, one: string, many = `${one}s`): string {
  return `${count} ${String(count) === '1' ? one : many}`;
}
