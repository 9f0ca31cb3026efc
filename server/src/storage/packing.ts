import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';

/** How a whole job goes over the line. Quick before small: it is packed anew after each change. */
export type Packing = 'br' | 'gzip' | 'identity';
export const PACK: Record<Packing, (bytes: Buffer) => Promise<Buffer>> = {
  br: (bytes) => promisify(brotliCompress)(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: 4 } }),
  gzip: (bytes) => promisify(gzip)(bytes, { level: 5 }),
  identity: async (bytes) => bytes,
};
