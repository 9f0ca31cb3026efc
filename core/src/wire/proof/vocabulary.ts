import type { Box } from '../../job/schema/survey.js';
import type { PlannedPlace } from '../comes-out.js';
import type { JointPlan } from '../joint-plan.js';

/** A box with what is planned for it, as it is proved: nothing of how the plan came about is looked at. */
export interface BoxToProve {
  /** With its findings as labels. */
  box: Box;
  places: readonly PlannedPlace[];
  plan: Pick<JointPlan, 'joints' | 'made' | 'landed' | 'capped' | 'kept' | 'removed'>;
  /** Positions whose old device comes out. */
  out: ReadonlySet<number>;
}

/** What a plan does not do, in a state of breakers and switches, or at all. */
export interface Breach {
  code:
    | 'end-not-placed'
    | 'end-placed-twice'
    | 'joint-of-one'
    | 'no-connector'
    | 'terminal-overfull'
    | 'piece-adrift'
    | 'short'
    | 'cross-fed'
    | 'borrowed-return'
    | 'neutral-ground-joined'
    | 'no-supply'
    | 'load-not-worked'
    | 'load-not-off'
    | 'fed-on-lost'
    | 'not-grounded'
    | 'box-not-bonded'
    | 'unknown-joined'
    | 'half-joined'
    | 'signal-lost'
    | 'terminal-astray'
    | 'runs-on-through-device'
    | 'below-minimum';
  boxId: string;
  /** Ends, terminals, joints, loads or circuits it is about. */
  about: readonly string[];
}
