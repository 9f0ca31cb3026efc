import type { Box } from '@inventario/core';

/** Records fields of the box in hand. Keystrokes with one merge key become one edit. */
export type ChangeBox = (change: Partial<Box>, label: string, mergeKey?: string) => void;
