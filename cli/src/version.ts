import { VERSION } from '@inventario/core';

/** The same as in the root's `package.json`; a test holds it to that. */
const PROGRAM_VERSION = '0.1.0';

export const versionText = `inventario ${PROGRAM_VERSION}, job file version ${VERSION}`;
