import { readFileSync } from 'node:fs';
import { dirname, join, normalize } from 'node:path';
import { type ParseResult, parse } from '@babel/parser';
import type { File, Node } from '@babel/types';

/** One source file as the measures read it. */
export interface Source {
  /** From the repository's root, with `/`. */
  path: string;
  lines: string[];
  tree: ParseResult<File>;
  isTest: boolean;
}

export function readSource(root: string, path: string): Source {
  const text = readFileSync(join(root, path), 'utf8');
  return sourceOf(path, text);
}

export function sourceOf(path: string, text: string): Source {
  return {
    path,
    lines: text.split('\n'),
    tree: parse(text, { sourceType: 'module', plugins: ['typescript', 'jsx'] }),
    isTest: /\.(test|journey)\.tsx?$|\/test-support\/|^e2e\//.test(path),
  };
}

/** Every node below `node`, outermost first, each with its ancestors, nearest last. */
export function* nodesOf(node: Node, above: readonly Node[] = []): Generator<[Node, readonly Node[]]> {
  yield [node, above];
  const below = [...above, node];
  for (const value of Object.values(node)) {
    for (const child of Array.isArray(value) ? value : [value]) {
      if (isNode(child)) yield* nodesOf(child, below);
    }
  }
}

function isNode(value: unknown): value is Node {
  return typeof value === 'object' && value !== null && 'type' in value && 'loc' in value;
}

export function linesOf(node: Node): number {
  return node.loc ? node.loc.end.line - node.loc.start.line + 1 : 0;
}

/** Where the imports of our own lead: paths from the root, with the ending of the source. */
export function importsOf(source: Source, exists: (path: string) => boolean): { line: number; to: string }[] {
  return source.tree.program.body.flatMap((statement) => {
    if (!('source' in statement) || !statement.source?.value.startsWith('.')) return [];
    const bare = normalize(join(dirname(source.path), statement.source.value)).replace(/\.js$/, '');
    const to = [`${bare}.ts`, `${bare}.tsx`].find(exists);
    return to ? [{ line: statement.loc?.start.line ?? 0, to }] : [];
  });
}
