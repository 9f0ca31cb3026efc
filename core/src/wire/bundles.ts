import type { ConnectorKind, WireSize } from '../job/schema/primitives.js';
import { type BundleMember, type ConnectorChoice, chooseConnector } from './connectors.js';

/** A bundle and the connector that takes it, jumpers to its neighbours counted; null: none does. */
export interface Bundle<Member> {
  members: Member[];
  connector: ConnectorChoice | null;
}

/**
 * One bundle where a connector takes it; else a chain of them, each joined to the next by a jumper of the
 * largest size.
 *
 *     w1 w2 w3 ──(first)──jumper──(second)── w4 w5
 */
export function bundlesOf<Member extends BundleMember>(
  members: readonly Member[],
  size: WireSize,
  kinds: readonly ConnectorKind[],
  range: readonly ConnectorChoice[],
): Bundle<Member>[] {
  const whole = chooseConnector(members, kinds, range);
  if (whole) return [{ members: [...members], connector: whole }];
  const choose = (bundle: readonly BundleMember[]) => chooseConnector(bundle, kinds, range);
  const jumper = { size };
  const two = split(members, jumper, choose);
  if (two) return two;
  return chain(members, jumper, choose) ?? [{ members: [...members], connector: null }];
}

type Choose = (bundle: readonly BundleMember[]) => ConnectorChoice | undefined;

/**
 * The division in two, jumper counted in both, whose connectors take the least room. Members alike in size
 * are interchangeable, so what is tried is how many of each size go to the first.
 */
function split<Member extends BundleMember>(
  members: readonly Member[],
  jumper: BundleMember,
  choose: Choose,
): Bundle<Member>[] | undefined {
  const sizes = new Map<string, Member[]>();
  for (const member of members) {
    const key = `${member.size}${member.aluminium ? ' aluminium' : ''}`;
    sizes.set(key, [...(sizes.get(key) ?? []), member]);
  }
  const alike = [...sizes.values()];
  let best: { ml: number; bundles: Bundle<Member>[] } | undefined;
  const counts = alike.map(() => 0);
  const attempt = (at: number): void => {
    if (at < alike.length) {
      for (let count = alike[at]?.length ?? 0; count >= 0; count--) {
        counts[at] = count;
        attempt(at + 1);
      }
      return;
    }
    const first = alike.flatMap((own, which) => own.slice(0, counts[which]));
    const second = alike.flatMap((own, which) => own.slice(counts[which]));
    if (first.length === 0 || second.length === 0) return;
    const one = choose([...first, jumper]);
    const two = one && choose([...second, jumper]);
    if (!one || !two || (best && one.ml + two.ml >= best.ml - 1e-9)) return;
    best = {
      ml: one.ml + two.ml,
      bundles: [
        { members: first, connector: one },
        { members: second, connector: two },
      ],
    };
  };
  attempt(0);
  return best?.bundles;
}

/** More than two: each link takes as many as its connector holds beside the jumpers at its ends. */
function chain<Member extends BundleMember>(
  members: readonly Member[],
  jumper: BundleMember,
  choose: Choose,
): Bundle<Member>[] | undefined {
  const bundles: Bundle<Member>[] = [];
  let rest = [...members];
  while (rest.length > 0) {
    const before = bundles.length > 0 ? [jumper] : [];
    const last = choose([...rest, ...before]);
    if (last) return [...bundles, { members: rest, connector: last }];
    let taken = rest.length - 1;
    let connector: ConnectorChoice | undefined;
    for (; taken > 0 && !connector; taken--) connector = choose([...rest.slice(0, taken), ...before, jumper]);
    if (!connector) return undefined;
    bundles.push({ members: rest.slice(0, taken + 1), connector });
    rest = rest.slice(taken + 1);
  }
  return undefined;
}
