export { buildSite } from './app.js';
