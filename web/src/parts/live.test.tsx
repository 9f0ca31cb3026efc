import '@testing-library/jest-dom/jest-globals';
import type { ChannelState } from '@inventario/core';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { act, screen } from '@testing-library/react';
import { shown } from '../test-support/by-hand.js';
import { exampleJob } from '../test-support/example-job.js';
import { LiveNow } from './live-now.js';

type Heard = (event: { data?: string }) => void;

/** Stands in for the browser's own stream, which the test speaks through. */
class Line {
  static open: Line | null = null;
  readonly heard = new Map<string, Heard[]>();
  closed = false;

  constructor(readonly address: string) {
    Line.open = this;
  }
  addEventListener(kind: string, hear: Heard): void {
    this.heard.set(kind, [...(this.heard.get(kind) ?? []), hear]);
  }
  close(): void {
    this.closed = true;
  }
  say(kind: string, data?: object): void {
    for (const hear of this.heard.get(kind) ?? []) hear(data ? { data: JSON.stringify(data) } : {});
  }
}

const state = (more: Partial<ChannelState> = {}): ChannelState => ({
  place: 'door/1',
  channel: 1,
  on: true,
  level: null,
  watts: 18,
  at: '2026-05-04T09:00:00Z',
  ...more,
});

const before = globalThis.EventSource;
beforeEach(() => {
  globalThis.EventSource = Line as unknown as typeof EventSource;
});
afterEach(() => {
  globalThis.EventSource = before;
});

describe('what of the house is lit now', () => {
  test('channels of this job tell their watts; odd ones are said; what is not heard now is old', async () => {
    await shown(exampleJob('long-room'), <LiveNow />, '/', '/');
    expect(screen.queryByText('Lit now')).toBeNull();
    act(() => Line.open?.say('state', state()));
    expect(screen.getByText(/1 of 1 channels that tell, 18 W/)).toHaveTextContent('not heard now');
    expect(screen.getByRole('listitem')).toHaveTextContent(
      '"Table routine" (Long room, door): 18 W. As it should be.',
    );
    act(() => Line.open?.say('state', state({ watts: 6 })));
    expect(screen.getByRole('listitem')).toHaveTextContent('2 lamps dark or missing');
    act(() => Line.open?.say('state', state({ place: 'elsewhere/1' })));
    expect(screen.getByText(/1 of 1 channels/)).toBeInTheDocument();
    act(() => Line.open?.say('state', state({ on: false, watts: 0 })));
    expect(screen.getByText(/0 of 1 channels that tell, 0 W/)).toBeInTheDocument();
  });

  test('the stream is closed when nobody looks', async () => {
    const { close } = await shown(exampleJob('long-room'), <LiveNow />, '/', '/');
    const line = Line.open;
    act(() => close());
    expect(line?.address).toBe('/api/site/stream');
  });
});
