import { buildSite } from './app.js';

const app = buildSite();
const port = Number(process.env.INVENTARIO_SITE_PORT ?? 4182);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void app.close().then(() => process.exit(0)));
await app.listen({ host: '127.0.0.1', port });
