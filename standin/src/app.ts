import {
  CommandRequest,
  DeedRequest,
  FindRequest,
  JoinRequest,
  LookRequest,
  SayRequest,
  schemaProblems,
  UpdateRequest,
} from '@inventario/core';
import Fastify, { type FastifyInstance, type FastifyReply, type FastifyRequest } from 'fastify';
import { z } from 'zod';
import { HANDS } from './device.js';
import { eventStream } from './event-stream.js';
import { page, pageScript } from './page.js';
import { Scenario } from './scenario.js';
import { Site } from './site.js';

const HandRequest = z.object({ place: z.string(), does: z.enum(HANDS) });
const PasswordRequest = z.object({ place: z.string(), password: z.string().max(63) });
const SettingRequest = z.object({
  place: z.string(),
  channel: z.number().int(),
  name: z.string().max(100),
  value: z.union([z.string().max(200), z.number()]),
});

/** Takes a body of one shape; anything else is refused with what is wrong with it. */
const taking =
  <Shape extends z.ZodType>(shape: Shape, answer: (body: z.output<Shape>) => unknown, status = 200) =>
  (request: FastifyRequest, reply: FastifyReply) => {
    const parsed = shape.safeParse(request.body);
    if (!parsed.success)
      return reply.code(400).send({ problems: schemaProblems(parsed.error, request.body) });
    const said = answer(parsed.data);
    if (said === undefined)
      return reply.code(404).send({ problems: [{ path: '/place', message: 'has no joined device' }] });
    return reply.code(status).send(said);
  };

/** With the address of its broker, once there is one: it may come up elsewhere after it died. */
type SiteApp = FastifyInstance & { site: Site; brokerAt: string | null };

/** What hands, eyes and apps do at devices and with them. */
function askedOf(app: FastifyInstance, site: Site): void {
  app.post(
    '/deeds',
    taking(DeedRequest, ({ place, deed }) => ({ outcome: site.deed(place, deed) })),
  );
  app.post(
    '/looks',
    taking(LookRequest, ({ place, look }) => ({ bad: site.look(place, look) })),
  );
  app.post(
    '/hands',
    taking(HandRequest, ({ place, does }) => site.hand(place, does)),
  );
  app.post(
    '/passwords',
    taking(PasswordRequest, ({ place, password }) => site.type(place, password)),
  );
  app.post(
    '/settings',
    taking(SettingRequest, ({ place, channel, name, value }) => site.set(place, channel, name, value)),
  );
  app.post(
    '/updates',
    taking(UpdateRequest, ({ place }) => site.update(place)),
  );
  app.post(
    '/finds',
    taking(FindRequest, (body) => site.find(body)),
  );
  app.post(
    '/sayings',
    taking(SayRequest, ({ platform, words }) => site.say(platform, words)),
  );
  app.post(
    '/commands',
    taking(CommandRequest, (body) => site.command(body)),
  );
}

/** The stand-in site behind HTTP. */
export function buildSite(scenario: Partial<Scenario> = {}): SiteApp {
  const site = new Site(scenario, () => Date.now());
  const app = Fastify({ logger: false, bodyLimit: 65_536, forceCloseConnections: true });

  app.get('/site', () => site.state());
  app.post(
    '/joins',
    taking(JoinRequest, (body) => site.start(body), 202),
  );
  app.get<{ Params: { id: string } }>('/joins/:id', (request, reply) => {
    const state = site.join(request.params.id);
    return state ?? reply.code(404).send({ problems: [{ path: '/id', message: 'names no join' }] });
  });
  askedOf(app, site);
  app.get('/states', () => site.states());
  eventStream(app, site);

  app.get('/', (_, reply) => reply.type('text/html').send(page));
  app.get('/page.js', (_, reply) => reply.type('text/javascript').send(pageScript));
  app.get('/scenario', () => ({ scenario: site.scenario, devices: site.behindThePlates() }));
  app.put(
    '/scenario',
    taking(Scenario, (scenario) => {
      site.restart(scenario);
      return site.scenario;
    }),
  );

  const whole: SiteApp = Object.assign(app, { site, brokerAt: null });
  app.get('/broker', () => ({ url: whole.brokerAt }));
  return whole;
}
