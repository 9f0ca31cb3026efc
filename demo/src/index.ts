export { demoCatalogue } from './catalogue.js';
export { quillonPoint } from './quillon-point.js';
