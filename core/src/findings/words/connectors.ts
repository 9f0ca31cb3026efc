import type { JobLookup } from '../../job/lookup.js';
import type { ConnectorKind } from '../../job/schema/primitives.js';
import { CONNECTOR_WORDS } from '../../practice/words.js';

interface ConnectorInWords {
  id: string;
  kind: ConnectorKind;
  conductors: readonly [number, number];
}

/** `twist-on, tw-medium, 2 to 4 conductors`; a usual one has no name of its own. */
export function connectorWords(connector: ConnectorInWords | null, known: JobLookup): string {
  if (!connector) return 'no connector takes it';
  const { id, kind, conductors } = connector;
  const own = known.job.catalogue.connectors.some((entry) => entry.id === id);
  const size = own ? id : id.replace(/^usual-/, '').replace(new RegExp(`^${kind}-?`), '');
  const ports =
    kind === 'lever' ? `${conductors[1]} ports` : `${conductors[0]} to ${conductors[1]} conductors`;
  return [CONNECTOR_WORDS[kind], size && kind !== 'lever' ? size : '', ports].filter(Boolean).join(', ');
}
