import { afterEach, beforeAll, beforeEach } from '@jest/globals';
import '@testing-library/react';

// Answers of engines and servers come when they come, as in a browser, and a test waits for what it then
// sees: only what a test does by hand is flushed at once.
beforeAll(() => {
  Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: false });
});

/** What was said on the console in this test: React's warnings, and what failed unseen. */
const said: string[] = [];
const { error, warn } = console;

beforeEach(() => {
  said.length = 0;
  const hear =
    (pass: typeof error) =>
    (...words: unknown[]) => {
      said.push(words.map(String).join(' '));
      pass(...words);
    };
  console.error = hear(error);
  console.warn = hear(warn);
});

afterEach(() => {
  console.error = error;
  console.warn = warn;
  if (said.length > 0) throw new Error(`Said on the console, which nothing here may do:\n${said.join('\n')}`);
});
