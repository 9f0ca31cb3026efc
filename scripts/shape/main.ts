// Prints the shape of the house; `--list` names each place; ends with 1 where a bound is passed.
import { fileURLToPath } from 'node:url';
import { outside, shapeOf } from './shape.js';

const shape = shapeOf(fileURLToPath(new URL('../..', import.meta.url)));
const list = process.argv.includes('--list');
for (const { name, found, bound } of shape.places) {
  console.log(`${String(found.length).padStart(6)}  ${name} (at most ${bound})`);
  for (const { path, line, what, value } of list ? found : [])
    console.log(`        ${path}:${line} ${what}${value > 1 ? ` (${value})` : ''}`);
}
if (shape.longest) {
  const { path, line, what, value } = shape.longest;
  console.log(`${String(value).padStart(6)}  lines in the longest function: ${what}, ${path}:${line}`);
}
for (const { workspace, code, tests, share, least } of shape.tests)
  console.log(
    `${share.toFixed(1).padStart(6)}  % tests in ${workspace}: ${tests} of ${code} lines` +
      (least === null ? '' : ` (at least ${least})`),
  );
const passed = outside(shape);
for (const words of passed) console.error(`outside its bound: ${words}`);
process.exit(passed.length === 0 ? 0 : 1);
