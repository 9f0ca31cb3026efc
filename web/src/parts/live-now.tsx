import { judgeWatts, radioChannels, targetWords, wattsText } from '@inventario/core';
import { useJob } from '../data/job-context.js';
import { useLive } from '../data/live.js';

/** What of the house is lit now, as the devices tell it, and whose watts are not those of its lamps. */
export function LiveNow() {
  const { known } = useJob();
  const { connected, states } = useLive();
  const told = radioChannels(known).flatMap((at) => {
    const state = states.get(at.id);
    return state ? [{ at, state, odd: wattsText(judgeWatts(at, state, known)) }] : [];
  });
  if (told.length === 0) return null;
  const lit = told.filter(({ state }) => state.on);
  const watts = lit.reduce((sum, { state }) => sum + state.watts, 0);
  return (
    <section>
      <h2 className="mb-1 font-bold">Lit now</h2>
      <p>
        {lit.length} of {told.length} channels that tell, {Math.round(watts)} W.
        {!connected && <span className="text-soft"> As told last; not heard now.</span>}
      </p>
      <ul className="text-sm">
        {lit.map(({ at, state, odd }) => (
          <li key={at.id}>
            {targetWords(at.id, known)}: {state.level === null ? '' : `${state.level} %, `}
            {state.watts} W. {odd}
          </li>
        ))}
      </ul>
    </section>
  );
}
