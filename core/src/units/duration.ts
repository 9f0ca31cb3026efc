/** `durationText(764)` is `12 h 44 min`; `durationText(40)` is `40 min`. */
export function durationText(minutes: number): string {
  const whole = Math.round(minutes);
  const hours = Math.floor(whole / 60);
  const rest = whole % 60;
  if (hours === 0) return `${rest} min`;
  return rest === 0 ? `${hours} h` : `${hours} h ${rest} min`;
}

/** The clock on the wall so many minutes after `HH:MM`: `clockAfter('08:00', 95)` is `09:35`. */
export function clockAfter(starts: string, minutes: number): string {
  const [hours = 0, past = 0] = starts.split(':').map(Number);
  const whole = Math.round(hours * 60 + past + minutes);
  const two = (value: number) => String(value).padStart(2, '0');
  return `${two(Math.floor(whole / 60) % 24)}:${two(whole % 60)}`;
}
