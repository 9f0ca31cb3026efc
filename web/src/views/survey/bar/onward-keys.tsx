import { type Blocker, placeKey, putPart } from '@inventario/core';
import { Link } from 'react-router';
import { instant, newId } from '../../../data/ids.js';
import { useJob } from '../../../data/job-context.js';
import { nextBoxOf } from '../../../parts/next-box.js';
import { paths } from '../../../parts/paths.js';
import { Button, buttonClass } from '../../../ui/button.js';
import { useHand } from '../hand/use-hand.js';

const LARGE = 'min-h-14 w-full text-lg';

/** The one touch that goes on: where it leads, or what it records. */
export function OnwardKeys() {
  const { box, step, onBench } = useHand();
  const { job } = useJob();
  switch (step?.kind) {
    case 'stop':
      return (
        <Button
          kind="stop"
          className={LARGE}
          onClick={() => document.getElementById('stop')?.scrollIntoView()}
        >
          Show what stops the work
        </Button>
      );
    case 'clash':
      return (
        <Button
          kind="main"
          className={LARGE}
          onClick={() => onBench({ mode: 'label', held: step.conductorId })}
        >
          Take it in hand
        </Button>
      );
    case 'onward':
      return <Onward code={step.blocker.code} />;
    case 'done': {
      const next = nextBoxOf(job, box.id);
      return next ? (
        <Link className={buttonClass('main', LARGE)} to={paths.box(job.id, next.id)}>
          Next box: {next.name}
        </Link>
      ) : (
        <Link className={buttonClass('main', LARGE)} to={paths.board(job.id)}>
          To the board
        </Link>
      );
    }
    default:
      return null;
  }
}

function Onward({ code }: { code: Blocker['code'] }) {
  const { box, known, onBench } = useHand();
  const { job, apply } = useJob();
  const wanting = box.positions.filter((position) => position.need?.smart);
  const open = wanting.find((position) => !known.selections.has(placeKey(box.id, position.index)));
  const place = (code === 'not-chosen' ? open : wanting[0]) ?? wanting[0];
  const link = (to: string, words: string) => (
    <Link className={buttonClass('main', LARGE)} to={to}>
      {words}
    </Link>
  );
  switch (code) {
    case 'over-full':
    case 'too-deep':
      return link(paths.fit(job.id, box.id), 'See the ways out');
    case 'not-chosen':
      return place ? link(paths.place(job.id, box.id, place.index), 'Choose a device') : null;
    case 'not-paired':
    case 'pairing-failed':
      return link(paths.pair(job.id), 'Pair it');
    case 'not-mounted':
    case 'wiring-begun':
      return (
        <>
          <p className="text-sm">
            Wire it dead: breaker off and locked, proved dead at the face and again with the device out.
          </p>
          {place && link(paths.wire(job.id, box.id), 'Wire it, step by step')}
          <Button
            className="w-full"
            onClick={() => {
              const id = newId();
              apply(
                [putPart('event', id, { id, kind: 'mounted', boxId: box.id, at: instant() })],
                `${box.name} wired and mounted`,
              );
            }}
          >
            Record: wired and mounted
          </Button>
        </>
      );
    default:
      // What was put off is asked again.
      return (
        <Button kind="main" className={LARGE} onClick={() => onBench({ skipped: new Set() })}>
          Go on with it
        </Button>
      );
  }
}
