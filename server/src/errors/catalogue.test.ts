import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import { ERRORS } from './catalogue.js';

test('docs/errors.md lists every error of the catalogue and no other', () => {
  const text = readFileSync(new URL('../../../docs/errors.md', import.meta.url), 'utf8');
  const listed = [...text.matchAll(/^\| `([a-z-]+)` \| (\d+) \| (.+) \|$/gm)].map(
    ([, code, status, says]) => [code, Number(status), says],
  );
  expect(listed).toEqual(Object.entries(ERRORS).map(([code, { status, says }]) => [code, status, says]));
});
