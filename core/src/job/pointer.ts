/**
 * A JSON Pointer (RFC 6901) from path steps. `pointer(['boxes', 0, 'name'])` is `/boxes/0/name`; no steps
 * give `""`.
 */
export function pointer(steps: readonly PropertyKey[]): string {
  return steps.map((step) => `/${String(step).replaceAll('~', '~0').replaceAll('/', '~1')}`).join('');
}
