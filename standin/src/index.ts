export { buildSite } from './app.js';
export { type Broker, startBroker } from './broker.js';
