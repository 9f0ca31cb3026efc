import type { ChannelState } from '@inventario/core';
import { useSyncExternalStore } from 'react';
import { api } from './api.js';

/** What joined channels told last, by `BOX/POSITION/CHANNEL`, and whether they are heard now. */
export interface Live {
  connected: boolean;
  states: ReadonlyMap<string, ChannelState>;
}

const NOTHING: Live = { connected: false, states: new Map() };

let now: Live = NOTHING;
let source: EventSource | null = null;
const listeners = new Set<() => void>();

function set(next: Live): void {
  now = next;
  for (const listener of listeners) listener();
}

const keyOf = ({ place, channel }: ChannelState) => `${place}/${channel}`;

function hear(): void {
  source = new EventSource('/api/site/stream');
  source.addEventListener('state', ({ data }) => {
    const state = JSON.parse(String(data)) as ChannelState;
    set({ ...now, states: new Map(now.states).set(keyOf(state), state) });
  });
  source.addEventListener('broker', ({ data }) => {
    const { connected } = JSON.parse(String(data)) as { connected: boolean };
    set({ ...now, connected });
    // What was told while nobody listened.
    if (connected) void bring();
  });
  // The browser tries again by itself; until then what is known is old.
  source.addEventListener('error', () => set({ ...now, connected: false }));
}

async function bring(): Promise<void> {
  try {
    const { connected, states } = await api.states();
    set({ connected, states: new Map(states.map((state) => [keyOf(state), state])) });
  } catch {
    set({ ...now, connected: false });
  }
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  if (source === null && typeof EventSource !== 'undefined') hear();
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0) return;
    source?.close();
    source = null;
  };
}

/** The live state of joined channels, as long as somebody looks. */
export const useLive = (): Live => useSyncExternalStore(subscribe, () => now);
