import type { Node } from '@babel/types';
import { PRACTICES as KNOWN } from '../../core/src/terms/trade.js';
import { againstTheLayers } from './layers.js';
import { importsOf, linesOf, nodesOf, type Source } from './source.js';

const WIDTH = 110;
/** A function is read at one glance; a component is mostly what it draws. */
const FUNCTION_LINES = 60;
const COMPONENT_LINES = 100;
const PARAMETERS = 5;
/** `a ? b : c ? d : e` is two deep. */
const TERNARY_DEPTH = 2;

/** One place that a measure names. */
export interface Place {
  path: string;
  line: number;
  what: string;
  /** What is measured there, where it is more than that it is there. */
  value: number;
}

export function upwardImports(source: Source, exists: (path: string) => boolean): Place[] {
  if (source.isTest) return [];
  return importsOf(source, exists).flatMap(({ line, to }) => {
    const why = againstTheLayers(source.path, to);
    return why ? [{ path: source.path, line, what: why, value: 1 }] : [];
  });
}

/**
 * Lines over the width. One sentence, pattern or list of classes is not broken in two: it is no such line.
 * Among the words a sentence may hold its facts.
 */
export function wideLines(source: Source): Place[] {
  const isWhole = source.path.startsWith('core/src/findings/words/') ? isOneSentence : isOneLiteral;
  return source.lines.flatMap((text, index) =>
    text.length > WIDTH && !isWhole(text)
      ? [{ path: source.path, line: index + 1, what: text.trim().slice(0, 60), value: text.length }]
      : [],
  );
}

/** What is left when its longest quoted text is taken out would fit twice. */
function isOneLiteral(line: string): boolean {
  const texts = line.match(/'[^']*'|"[^"]*"|`[^`$]*`/g) ?? [];
  const longest = Math.max(0, ...texts.map((text) => text.length));
  return line.trim().length - longest <= WIDTH / 3;
}

function isOneSentence(line: string): boolean {
  return isOneLiteral(line) || /^(return |: |\? )?`.*`[,;)]*$/.test(line.trim());
}

/** Functions and components by their lines, the longest first; those that only hold data left out. */
export function functionLengths(source: Source): Place[] {
  const found: Place[] = [];
  for (const [node, above] of nodesOf(source.tree.program)) {
    const name = functionName(node, above);
    if (name === null || isDataOnly(node)) continue;
    found.push({ path: source.path, line: node.loc?.start.line ?? 0, what: name, value: linesOf(node) });
  }
  return found;
}

/** The name of a function, method or arrow; null for anything else. */
function functionName(node: Node, above: readonly Node[]): string | null {
  switch (node.type) {
    case 'FunctionDeclaration':
      return node.id?.name ?? 'a function';
    case 'ClassMethod':
    case 'ObjectMethod':
      return node.key.type === 'Identifier' ? node.key.name : 'a method';
    case 'ClassPrivateMethod':
      return `#${node.key.id.name}`;
    case 'FunctionExpression':
    case 'ArrowFunctionExpression': {
      const holder = above.at(-1);
      return holder?.type === 'VariableDeclarator' && holder.id.type === 'Identifier'
        ? holder.id.name
        : 'a function';
    }
    default:
      return null;
  }
}

/** A function whose body is one value written down: a table of data that takes parameters. */
function isDataOnly(node: Node): boolean {
  if (!('body' in node)) return false;
  const body = node.body as Node;
  const value =
    body.type === 'BlockStatement' && body.body.length === 1 && body.body[0]?.type === 'ReturnStatement'
      ? body.body[0].argument
      : body;
  return value?.type === 'ObjectExpression' || value?.type === 'ArrayExpression';
}

export function longFunctions(source: Source): Place[] {
  const limit = source.path.endsWith('.tsx') ? COMPONENT_LINES : FUNCTION_LINES;
  // The demo's catalogue is a table that happens to be written as a function.
  const isData = source.isTest || source.path.startsWith('demo/src/catalogue/');
  return isData ? [] : functionLengths(source).filter(({ value }) => value > limit);
}

export function manyParameters(source: Source): Place[] {
  const found: Place[] = [];
  for (const [node, above] of nodesOf(source.tree.program)) {
    const name = functionName(node, above);
    if (name === null || !('params' in node)) continue;
    const count = (node.params as Node[]).length;
    if (count > PARAMETERS)
      found.push({ path: source.path, line: node.loc?.start.line ?? 0, what: name, value: count });
  }
  return found;
}

export function deepTernaries(source: Source): Place[] {
  const found: Place[] = [];
  for (const [node, above] of nodesOf(source.tree.program)) {
    if (node.type !== 'ConditionalExpression') continue;
    const depth = 1 + chainAbove(above, node);
    if (depth === TERNARY_DEPTH + 1)
      found.push({ path: source.path, line: node.loc?.start.line ?? 0, what: 'ternary', value: depth });
  }
  return found;
}

/** How many ternaries hold this one directly, each as a branch of the next. */
function chainAbove(above: readonly Node[], node: Node): number {
  let count = 0;
  let inner = node;
  for (const holder of [...above].reverse()) {
    if (holder.type === 'ConditionalExpression' && holder.test !== inner) count += 1;
    else if (!/^(Parenthesized|TSAs|TSSatisfies)/.test(holder.type)) break;
    inner = holder;
  }
  return count;
}

const PRACTICES: ReadonlySet<string> = new Set(KNOWN);

/** Where code outside `practice/` asks which practice it is in, or keeps a table by practice. */
export function practiceQuestions(source: Source): Place[] {
  if (
    source.isTest ||
    /^(core\/src\/(practice|terms|test-support)|demo|scripts\/benchmark)\//.test(source.path)
  )
    return [];
  const found: Place[] = [];
  const name = (node: Node, what: string) =>
    found.push({ path: source.path, line: node.loc?.start.line ?? 0, what, value: 1 });
  for (const [node] of nodesOf(source.tree.program)) {
    if (node.type === 'BinaryExpression' && /^[!=]==?$/.test(node.operator)) {
      for (const side of [node.left, node.right])
        if (side.type === 'StringLiteral' && PRACTICES.has(side.value))
          name(node, `asks for "${side.value}"`);
    } else if (node.type === 'SwitchCase' && node.test?.type === 'StringLiteral') {
      if (PRACTICES.has(node.test.value)) name(node, `case "${node.test.value}"`);
    } else if (node.type === 'ArrayExpression') {
      const named = node.elements.filter(
        (element) => element?.type === 'StringLiteral' && PRACTICES.has(element.value),
      );
      if (named.length > 1) name(node, 'a list of practices');
    } else if (node.type === 'ObjectExpression') {
      const keys = node.properties.flatMap((property) =>
        'key' in property && property.key.type === 'Identifier' ? [property.key.name] : [],
      );
      if (keys.filter((key) => PRACTICES.has(key)).length > 1) name(node, 'a table by practice');
    }
  }
  return found;
}
