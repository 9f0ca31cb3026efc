import { type JoinRequest, JoinState, SiteState } from '@inventario/core';
/** What the product asks of a site. The stand-in answers it; a gateway to real hardware could too. */
export interface SiteGateway {
    state(): Promise<SiteState>;
    startJoin(request: JoinRequest): Promise<JoinState>;
    join(id: string): Promise<JoinState>;
}
/** A site behind HTTP. */
export declare function httpSite(address: string): SiteGateway;
