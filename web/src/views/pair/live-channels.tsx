import type { DeviceStands } from '@inventario/core';
import { useLive } from '../../data/live.js';
import { LiveWatts } from '../../parts/live-watts.js';

/** What the channels of a joined device tell. */
export function LiveChannels({ stands }: { stands: DeviceStands }) {
  const { states } = useLive();
  const told = stands.channels.filter(({ task }) => states.has(task.id));
  if (told.length === 0) return null;
  return (
    <ul aria-label="Live" className="mt-2 border-t border-rule pt-2">
      {told.map(({ task }) => (
        <li key={task.id}>
          <LiveWatts
            at={task}
            label={stands.channels.length > 1 ? (task.channel.name ?? `Channel ${task.channel.id}`) : 'Now'}
          />
        </li>
      ))}
    </ul>
  );
}
