import { type JoinRequest, JoinState, SiteState } from '@inventario/core';
import { RequestError } from '../errors/catalogue.js';

/** What the product asks of a site. The stand-in answers it; a gateway to real hardware could too. */
export interface SiteGateway {
  state(): Promise<SiteState>;
  startJoin(request: JoinRequest): Promise<JoinState>;
  join(id: string): Promise<JoinState>;
}

/** A site behind HTTP. */
export function httpSite(address: string): SiteGateway {
  const ask = async (path: string, init: RequestInit = {}): Promise<unknown> => {
    let response: Response;
    try {
      response = await fetch(`${address}${path}`, { ...init, signal: AbortSignal.timeout(4000) });
    } catch {
      throw new RequestError('site-unreachable');
    }
    if (response.status === 404) throw new RequestError('no-such-join');
    if (!response.ok) throw new RequestError('site-unreachable');
    return response.json();
  };
  return {
    state: async () => SiteState.parse(await ask('/site')),
    startJoin: async (request) =>
      JoinState.parse(
        await ask('/joins', {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(request),
        }),
      ),
    join: async (id) => JoinState.parse(await ask(`/joins/${encodeURIComponent(id)}`)),
  };
}
