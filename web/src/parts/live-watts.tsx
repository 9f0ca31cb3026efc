import { type ChannelTask, judgeWatts, wattsText } from '@inventario/core';
import { useJob } from '../data/job-context.js';
import { useLive } from '../data/live.js';

/** What a joined channel tells now: on, level, watts, and whether these are the watts to expect. */
export function LiveWatts({ at, label = 'Now' }: { at: ChannelTask; label?: string }) {
  const { known } = useJob();
  const { connected, states } = useLive();
  const state = states.get(at.id);
  if (!state) return null;
  return (
    <p>
      <b>{label}:</b> {state.on ? 'on' : 'off'}
      {state.on && state.level !== null && `, ${state.level} %`}, {state.watts} W.{' '}
      {wattsText(judgeWatts(at, state, known))}
      {!connected && <span className="text-soft"> As told last; not heard now.</span>}
    </p>
  );
}
