let last = 0;

/**
 * A UUIDv7: the time in milliseconds, then random; ids made later sort later, those of one millisecond too.
 */
export function newId(time = Date.now()): string {
  const now = Math.max(time, last + 1);
  last = now;
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  for (let index = 0; index < 6; index++) bytes[index] = Math.floor(now / 2 ** (8 * (5 - index))) & 0xff;
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x70;
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
}

let device: string | undefined;

/**
 * Names this browser among the devices that work on a job. One that keeps nothing is another device each
 * time.
 */
export function thisDevice(): string {
  try {
    device ??= localStorage.getItem('device') ?? undefined;
    device ??= newId();
    localStorage.setItem('device', device);
  } catch {
    device ??= newId();
  }
  return device;
}

export function instant(): string {
  return new Date().toISOString().replace(/\.\d+Z$/, 'Z');
}
