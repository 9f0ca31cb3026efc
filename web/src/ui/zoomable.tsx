import { Maximize2, ZoomIn, ZoomOut } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { TransformComponent, TransformWrapper, useControls } from 'react-zoom-pan-pinch';
import { Button } from './button.js';

/** How far a drawing can be drawn out. */
const LARGEST = 5;

/**
 * A drawing that is drawn larger with two fingers, a double touch, Ctrl and the wheel or the buttons, and
 * then moved under the finger. As it comes it stands whole and the page scrolls over it.
 */
export function Zoomable({ children }: { children: ReactNode }) {
  const [scale, setScale] = useState(1);
  return (
    <TransformWrapper
      minScale={1}
      maxScale={LARGEST}
      onTransform={(_, { scale: now }) => setScale(now)}
      panning={{ disabled: scale <= 1 }}
      wheel={{ activationKeys: ['Control'] }}
      doubleClick={{ mode: 'toggle' }}
    >
      <Controls scale={scale} />
      <TransformComponent
        wrapperStyle={{ width: '100%', touchAction: scale > 1 ? 'none' : 'pan-x pan-y' }}
        contentStyle={{ width: '100%' }}
      >
        {children}
      </TransformComponent>
    </TransformWrapper>
  );
}

function Controls({ scale }: { scale: number }) {
  const { zoomIn, zoomOut, resetTransform } = useControls();
  return (
    <div className="flex justify-end gap-1">
      {scale > 1 && (
        <>
          <Button kind="quiet" icon={Maximize2} iconOnly onClick={() => resetTransform()}>
            The drawing whole
          </Button>
          <Button kind="quiet" icon={ZoomOut} iconOnly onClick={() => zoomOut()}>
            The drawing smaller
          </Button>
        </>
      )}
      <Button kind="quiet" icon={ZoomIn} iconOnly disabled={scale >= LARGEST} onClick={() => zoomIn()}>
        The drawing larger
      </Button>
    </div>
  );
}
