/** The stages of a box in the order of the work. */
export const STAGES = ['surveyed', 'identified', 'chosen', 'wired', 'paired'] as const;
export type Stage = (typeof STAGES)[number];
