/** Joins class names; false and undefined drop out. */
export function classes(...names: (string | false | undefined | null)[]): string {
  return names.filter(Boolean).join(' ');
}
