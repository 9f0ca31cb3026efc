import {
  type DeedRequest,
  type FindRequest,
  FindResult,
  type JoinRequest,
  JoinState,
  type LookRequest,
  LookResult,
  type SayRequest,
  SayResult,
  SiteState,
  type UpdateRequest,
  UpdateResult,
} from '@inventario/core';
import { z } from 'zod';
import { type ErrorCode, RequestError } from '../errors/catalogue.js';

/**
 * What the product asks of a site. The stand-in answers it; a gateway to real routers and hubs could too. The
 * state of channels comes over MQTT, not here.
 */
export interface SiteGateway {
  state(): Promise<SiteState>;
  startJoin(request: JoinRequest): Promise<JoinState>;
  join(id: string): Promise<JoinState>;
  /** The installer did something at a device. A gateway to real ones has nothing to do. */
  deed(request: DeedRequest): Promise<'done' | 'cannot'>;
  look(request: LookRequest): Promise<LookResult>;
  update(request: UpdateRequest): Promise<UpdateResult>;
  find(request: FindRequest): Promise<FindResult>;
  say(request: SayRequest): Promise<SayResult>;
  /** Where the broker of the devices is now; null where the site has none. */
  broker(): Promise<string | null>;
}

const Deed = z.object({ outcome: z.enum(['done', 'cannot']) });
const BrokerAddress = z.object({ url: z.url({ protocol: /^mqtts?$/ }).nullable() });

/** A site behind HTTP. */
export function httpSite(address: string): SiteGateway {
  const ask = async (path: string, missing: ErrorCode, body?: unknown): Promise<unknown> => {
    let response: Response;
    try {
      response = await fetch(`${address}${path}`, {
        signal: AbortSignal.timeout(4000),
        ...(body === undefined
          ? {}
          : { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
      });
    } catch {
      throw new RequestError('site-unreachable');
    }
    if (response.status === 404) throw new RequestError(missing);
    if (!response.ok) throw new RequestError('site-unreachable');
    return response.json();
  };
  return {
    state: async () => SiteState.parse(await ask('/site', 'site-unreachable')),
    startJoin: async (request) => JoinState.parse(await ask('/joins', 'site-unreachable', request)),
    join: async (id) => JoinState.parse(await ask(`/joins/${encodeURIComponent(id)}`, 'no-such-join')),
    deed: async (request) => Deed.parse(await ask('/deeds', 'site-unreachable', request)).outcome,
    look: async (request) => LookResult.parse(await ask('/looks', 'site-unreachable', request)),
    update: async (request) => UpdateResult.parse(await ask('/updates', 'not-joined', request)),
    find: async (request) => FindResult.parse(await ask('/finds', 'site-unreachable', request)),
    say: async (request) => SayResult.parse(await ask('/sayings', 'site-unreachable', request)),
    broker: async () => BrokerAddress.parse(await ask('/broker', 'site-unreachable')).url,
  };
}
