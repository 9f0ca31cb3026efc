// The heavy worker run from its source, as the tests do: a thread does not inherit the loader that reads
// TypeScript.
import { tsImport } from 'tsx/esm/api';

await tsImport('./heavy-worker.ts', import.meta.url);
