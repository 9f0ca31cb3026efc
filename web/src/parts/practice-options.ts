import { PROFILES } from '@inventario/core';

/** The practices to choose from. */
export const PRACTICE_OPTIONS = Object.values(PROFILES).map(({ id, title }) => ({ value: id, label: title }));
