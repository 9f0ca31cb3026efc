import { createServer, type Server, type Socket } from 'node:net';
import { CommandRequest } from '@inventario/core';
import { Aedes } from 'aedes';
import type { Site } from './site.js';

/** `home/BOX/POSITION/CHANNEL/state`, retained, and `…/set` for commands. */
const topicOf = (place: string, channel: number, what: 'state' | 'set') => `home/${place}/${channel}/${what}`;
const SET = /^home\/([^/]+\/\d+)\/(\d+)\/set$/;

/** An MQTT broker on which the site's devices tell their state and take commands. */
export interface Broker {
  url: string;
  close(): Promise<void>;
}

/** @param port 0: one that is free */
export async function startBroker(site: Site, port: number): Promise<Broker> {
  const aedes = await Aedes.createBroker();
  const server: Server = createServer((socket) => aedes.handle(socket));
  const sockets = new Set<Socket>();
  server.on('connection', (socket) => {
    sockets.add(socket);
    socket.on('close', () => sockets.delete(socket));
  });
  const publish = (topic: string, payload: object) =>
    aedes.publish(
      { cmd: 'publish', qos: 1, dup: false, retain: true, topic, payload: JSON.stringify(payload) },
      () => undefined,
    );
  const unlisten = site.listen((event) => {
    if (event.kind !== 'state') return;
    publish(topicOf(event.state.place, event.state.channel, 'state'), event.state);
  });
  // A broker that comes back knows nothing: every device tells its state anew.
  for (const state of site.states()) publish(topicOf(state.place, state.channel, 'state'), state);
  aedes.on('publish', ({ topic, payload }) => {
    const [, place, channel] = SET.exec(topic) ?? [];
    if (place === undefined) return;
    const command = CommandRequest.safeParse({
      ...parsed(payload),
      place,
      channel: Number(channel),
      from: 'app',
    });
    if (command.success) site.command(command.data);
  });
  await new Promise<void>((listening, failed) => {
    server.once('error', failed);
    server.listen(port, '127.0.0.1', listening);
  });
  const address = server.address();
  return {
    url: `mqtt://127.0.0.1:${typeof address === 'object' && address ? address.port : port}`,
    close: async () => {
      unlisten();
      for (const socket of sockets) socket.destroy();
      await new Promise((closed) => server.close(closed));
      await new Promise<void>((closed) => aedes.close(() => closed()));
    },
  };
}

/** A payload that is no object of JSON says nothing. */
function parsed(payload: Buffer | string): object {
  try {
    const value: unknown = JSON.parse(payload.toString());
    return typeof value === 'object' && value !== null ? value : {};
  } catch {
    return {};
  }
}
