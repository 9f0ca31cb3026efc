import type { Verdict } from '@inventario/core';
import { CircleCheck, CircleHelp, CirclePlus, CircleSlash2 } from 'lucide-react';

const LOOK = {
  fits: { word: 'Fits', icon: CircleCheck },
  'fits-with': { word: 'Fits with', icon: CirclePlus },
  unproved: { word: 'Not proved', icon: CircleHelp },
  no: { word: 'No', icon: CircleSlash2 },
} as const satisfies Record<Verdict, unknown>;

export function VerdictWord({ verdict }: { verdict: Verdict }) {
  const { word, icon: Icon } = LOOK[verdict];
  return (
    <span className="inline-flex items-center gap-1.5 font-semibold whitespace-nowrap">
      <Icon aria-hidden className="size-5" />
      {word}
    </span>
  );
}
