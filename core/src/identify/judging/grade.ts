export type Grade = 'guess' | 'indicated' | 'confirmed';

/** From this probability on a role may be confirmed, and be indicated. */
export const CONFIRMED = 0.99;
export const INDICATED = 0.9;
