import type { WireSize } from '../job/schema/primitives.js';

/** The breaker that goes with a copper conductor, A: 14 AWG 15, 12 AWG 20, 10 AWG 30. Other sizes are not judged. */
export const CONDUCTOR_AMPS: Partial<Record<WireSize, number>> = { '14AWG': 15, '12AWG': 20, '10AWG': 30 };
