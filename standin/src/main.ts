import { buildSite } from './app.js';

const app = buildSite();
const port = Number(process.env.INVENTARIO_SITE_PORT ?? 4182);
const end = () => void app.close().then(() => process.exit(0));
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, end);
// Whoever started this site is gone: nobody would ever end it.
if (process.send) process.once('disconnect', end);
await app.listen({ host: '127.0.0.1', port });
