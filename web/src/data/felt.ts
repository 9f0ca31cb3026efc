/** A tap that recorded something is felt, where the device can. */
export function felt(): void {
  navigator.vibrate?.(12);
}
