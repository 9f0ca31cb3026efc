import { conductorsById, conductorTitle, wireSizeText } from '@inventario/core';
import { X } from 'lucide-react';
import { Swatch } from '../../../drawings/strand.js';
import { Button } from '../../../ui/button.js';
import { useHand } from '../hand/use-hand.js';

/** The conductor in hand, so that it cannot be mistaken. */
export function HeldTitle({ conductorId }: { conductorId: string }) {
  const { box, known, onBench } = useHand();
  const conductor = conductorsById(box).get(conductorId);
  if (!conductor) return null;
  return (
    <div className="flex items-center gap-2">
      <Swatch colour={conductor.colour} />
      <p role="status" className="min-w-0 flex-1 leading-tight">
        <span className="block text-lg leading-tight font-bold">
          {conductorTitle(box, conductorId, known.job)}
        </span>
        <span className="block text-sm text-soft">
          {wireSizeText(conductor.size)}
          {conductor.cableId === undefined && ', made in the box'}
        </span>
      </p>
      <Button icon={X} iconOnly title="Put it down" onClick={() => onBench({ held: null })}>
        Put it down
      </Button>
    </div>
  );
}
