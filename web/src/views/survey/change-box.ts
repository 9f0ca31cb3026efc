import type { Box, BoxEnclosure } from '@inventario/core';

/** Records fields of the box in hand. Keystrokes with one merge key become one edit. */
export type ChangeBox = (change: Partial<Box>, label: string, mergeKey?: string) => void;

/** The same for fields of its enclosure. */
export type SetEnclosure = (change: Partial<BoxEnclosure>, label: string, mergeKey?: string) => void;
