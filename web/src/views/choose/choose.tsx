import {
  AgainstEntry,
  type Box,
  bestFirst,
  type Device,
  deviceName,
  moneyText,
  type PlanChoice,
  type Position,
  placeKey,
  putPart,
  RADIO_WORDS,
  RULE_WORDS,
  type Selection,
  STRATEGY_WORDS,
  type Strategy,
  stoppedBy,
  type Verdict,
} from '@inventario/core';
import { ArrowLeft } from 'lucide-react';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { JudgedDevice } from '../../data/engines.worker.js';
import { useHouse, useJob, usePlace } from '../../data/job-context.js';
import { Bench } from '../../parts/bench.js';
import { BoxReckoning, glanceAt } from '../../parts/box-reckoning.js';
import { FormText } from '../../parts/form-fields.js';
import { paths } from '../../parts/paths.js';
import { RecordForm, useRecordForm } from '../../parts/record-form.js';
import { Button } from '../../ui/button.js';
import { Segments } from '../../ui/choice.js';
import { classes } from '../../ui/classes.js';
import { Empty } from '../../ui/empty.js';
import { VerdictWord } from '../../ui/verdict.js';

/** What goes here? Devices in order of suitability, each with its verdict and every reason that stops it. */
export function ChooseView() {
  const { boxId = '', position: index = '' } = useParams();
  const { job, known } = useJob();
  const box = known.boxes.get(boxId);
  const position = box?.positions.find((entry) => entry.index === Number(index));
  if (!box || !position)
    return (
      <Bench title="Choose" glance="No such place" reckoning={null}>
        <Empty title="This place is not in the job any more">
          <Link className="underline" to={paths.board(job.id)}>
            To the board
          </Link>
        </Empty>
      </Bench>
    );
  return <Place key={`${boxId}/${index}`} box={box} position={position} />;
}

type Show = 'possible' | 'all';

function Place({ box, position }: { box: Box; position: Position }) {
  const { job, known, apply, applyAndSay } = useJob();
  const house = useHouse();
  const judged = usePlace(box.id, position.index);
  const selection = known.selections.get(placeKey(box.id, position.index));
  const loads = position.loadIds.map((id) => known.loads.get(id)?.name).join(' and ');

  const here = { boxId: box.id, position: position.index };
  const choose = (candidate: JudgedDevice, against?: string) => {
    const device = known.devices.get(candidate.deviceId) as Device;
    const parts = [
      selectionPart(
        { ...here, deviceId: candidate.deviceId, strategy: candidate.strategy, with: candidate.with },
        against,
      ),
      ...candidate.partners.map((partner) =>
        selectionPart({ ...partner, strategy: candidate.strategy, with: [] }),
      ),
    ];
    const also = candidate.partners.length > 0 ? ', its partner with it' : '';
    applyAndSay(
      parts,
      `${deviceName(device)} for ${box.name}`,
      `${deviceName(device)} goes to ${box.name}${also}.`,
    );
  };
  const keep = () =>
    apply(
      [selectionPart({ ...here, deviceId: null, strategy: 'single', with: [] })],
      `The mechanical switch stays at ${box.name}`,
    );

  return (
    <Bench
      title={`Choose for ${box.name}`}
      glance={glanceAt(house, box.id)}
      reckoning={<BoxReckoning box={box} />}
    >
      <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <Link to={paths.box(job.id, box.id)} className="flex min-h-11 items-center gap-2 underline">
          <ArrowLeft aria-hidden className="size-5" />
          {box.name}
        </Link>
        <h1 className="text-lg font-bold">
          What goes to position {position.index}
          {loads && `, ${loads}`}?
        </h1>
      </div>
      {judged ? (
        <Judged judged={judged} box={box} selection={selection} onChoose={choose} onKeep={keep} />
      ) : (
        <p>Being judged …</p>
      )}
    </Bench>
  );
}

/** Every device judged for the place: in sum, what stops them, and one after the other. */
function Judged({
  judged,
  box,
  selection,
  onChoose,
  onKeep,
}: {
  judged: JudgedDevice[];
  box: Box;
  selection: Selection | undefined;
  onChoose: CandidateProps['onChoose'];
  onKeep: () => void;
}) {
  const { job, known } = useJob();
  const [show, setShow] = useState<Show>('possible');
  const rows = bestFirst(judged, known.devices);
  const possible = rows.filter((row) => row.best.verdict !== 'no' || row.device.id === selection?.deviceId);
  const counts = (verdict: Verdict) => rows.filter((row) => row.best.verdict === verdict).length;
  const shown = show === 'all' ? rows : possible;
  return (
    <>
      <p className="mb-2">
        Of {rows.length} devices {counts('fits')} fit, {counts('fits-with')} fit with a part,{' '}
        {counts('unproved')} are not proved, {counts('no')} do not go here.
      </p>
      <StoppedBy judged={judged} />
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <Segments
          label="Show"
          hideLabel
          value={show}
          options={[
            { value: 'possible', label: `Possible (${possible.length})` },
            { value: 'all', label: `All, with what stops them (${rows.length})` },
          ]}
          onChoice={setShow}
        />
        <Button onClick={onKeep} aria-pressed={selection?.deviceId === null}>
          Keep the mechanical switch
        </Button>
      </div>
      {shown.length === 0 && (
        <Empty title="No device of the catalogue can go here">
          <p>
            Show all to read what stops each; a deeper box, another finding or another device may open the
            way.
          </p>
        </Empty>
      )}
      <ul className="flex flex-col gap-2">
        {shown.map(({ device, best, others }, at) => (
          <Candidate
            key={device.id}
            device={device}
            best={best}
            others={others}
            chosen={selection?.deviceId === device.id ? selection.strategy : null}
            against={selection?.deviceId === device.id ? (selection.against ?? null) : null}
            boxId={box.id}
            currency={job.money?.currency}
            isFirst={at === 0 && !selection}
            onChoose={onChoose}
          />
        ))}
      </ul>
    </>
  );
}

/**
 * Every rule that stops devices here, the ones that stop most first: what of the place would have to change.
 */
function StoppedBy({ judged }: { judged: readonly JudgedDevice[] }) {
  const rules = stoppedBy(judged);
  if (rules.length === 0) return null;
  return (
    <p className="mb-3 text-sm text-soft">
      What stops devices here:{' '}
      {rules.map(({ rule, devices }) => `${RULE_WORDS[rule] ?? rule} (${devices})`).join(', ')}.
    </p>
  );
}

/** @param against why it is chosen although a rule stops it */
function selectionPart(
  choice: Pick<PlanChoice, 'boxId' | 'position' | 'deviceId' | 'strategy' | 'with'>,
  against?: string,
) {
  const { boxId, position, deviceId, strategy, with: parts } = choice;
  return putPart('selection', placeKey(boxId, position), {
    boxId,
    position,
    deviceId,
    strategy,
    with: [...parts],
    against: against || undefined,
  });
}

interface CandidateProps {
  device: Device;
  best: JudgedDevice;
  others: readonly JudgedDevice[];
  chosen: Strategy | null;
  /** Why it was chosen although it is stopped. */
  against: string | null;
  boxId: string;
  currency: string | undefined;
  /** The best of all, and nothing is chosen yet: the one filled button. */
  isFirst: boolean;
  onChoose: (candidate: JudgedDevice, against?: string) => void;
}

function Candidate(props: CandidateProps) {
  const { device, best, others, chosen, against, boxId, currency, isFirst, onChoose } = props;
  const { known } = useJob();
  const [asking, setAsking] = useState(false);
  const stopped = best.verdict === 'no';
  const partners = best.partners.map(({ boxId: far, deviceId }) => {
    const gets = deviceId ? nameOf(known.devices.get(deviceId)) : 'no device';
    return `${known.boxes.get(far)?.name} gets ${gets}`;
  });
  const parts = best.with.map((id) => known.job.catalogue.parts.find((part) => part.id === id)?.name ?? id);
  return (
    <li
      aria-label={deviceName(device)}
      className={classes('rounded-lg border bg-sheet p-3', chosen ? 'border-2 border-ink' : 'border-rule')}
    >
      <div className="flex items-center gap-3">
        <div className="flex min-w-0 flex-1 flex-col gap-x-3 sm:flex-row sm:items-baseline">
          <span className="w-28 shrink-0">
            <VerdictWord verdict={best.verdict} />
          </span>
          <span className="min-w-0">
            <span className="mr-3 font-bold">{deviceName(device)}</span>
            <span className="text-soft">
              {device.actuator ?? 'device'}, {RADIO_WORDS[device.radio]}
            </span>
          </span>
        </div>
        <span className="shrink-0 font-semibold">{moneyText(device.price, currency)}</span>
        <Button
          kind={isFirst && best.verdict !== 'no' ? 'main' : 'plain'}
          disabled={chosen === best.strategy}
          onClick={() => (stopped ? setAsking(true) : onChoose(best))}
        >
          {chosen === best.strategy ? 'Chosen' : stopped ? 'Choose all the same' : 'Choose'}
        </Button>
      </div>
      {against && <p className="text-sm font-semibold sm:pl-31">Chosen against advice: {against}</p>}
      {(best.strategy !== 'single' || parts.length > 0) && (
        <p className="pl-0 text-sm sm:pl-31">
          {best.strategy !== 'single' && STRATEGY_WORDS[best.strategy]}
          {partners.length > 0 && `: ${partners.join(', ')}`}
          {parts.length > 0 && ` with ${parts.join(', ')}`}
        </p>
      )}
      {best.reasons.length > 0 && (
        <ul className="mt-1 flex flex-col gap-0.5 text-sm sm:pl-31">
          {best.reasons.map((reason) => (
            <li
              key={`${reason.rule}${reason.text}`}
              className={classes('flex gap-2', reason.outcome === 'note' && 'text-soft')}
            >
              <span className="w-24 shrink-0 text-soft">{OUTCOME_WORDS[reason.outcome]}</span>
              <span>
                {reason.text} <Settle reason={reason} boxId={boxId} />
              </span>
            </li>
          ))}
        </ul>
      )}
      {others.length > 0 && (
        <p className="mt-1 flex flex-wrap items-center gap-2 text-sm sm:pl-31">
          Also
          {others.map((other) => (
            <Button key={other.strategy} disabled={chosen === other.strategy} onClick={() => onChoose(other)}>
              {STRATEGY_WORDS[other.strategy]}
            </Button>
          ))}
        </p>
      )}
      {asking && (
        <AgainstDialog
          name={deviceName(device)}
          stops={best.reasons.filter((reason) => reason.outcome === 'block').map((reason) => reason.text)}
          onClose={() => setAsking(false)}
          onReason={(reason) => onChoose(best, reason)}
        />
      )}
    </li>
  );
}

/** What would settle a finding that is not proved, and the way there. */
function Settle({ reason, boxId }: { reason: JudgedDevice['reasons'][number]; boxId: string }) {
  const { job } = useJob();
  const { settles } = reason;
  if (!settles) return null;
  const [farBox = '', farIndex = ''] = reason.place?.split('/') ?? [];
  const there = () => {
    const box = paths.box(job.id, boxId);
    if (settles.by === 'test') return `${box}?test=${settles.role}`;
    if (settles.where === 'partner' && reason.place) return paths.place(job.id, farBox, Number(farIndex));
    if (settles.where === 'load') return paths.house(job.id);
    return settles.where === 'circuit' ? paths.panel(job.id) : box;
  };
  return (
    <Link className="inline-flex min-h-11 items-center gap-1 font-semibold underline" to={there()}>
      {settles.by === 'test' ? 'Test: ' : 'Settle it: '}
      {settles.says}
    </Link>
  );
}

/** The installer has the last word, and says why; it stays with the choice until the hand-over. */
function AgainstDialog({
  name,
  stops,
  onReason,
  onClose,
}: {
  name: string;
  stops: readonly string[];
  onReason: (reason: string) => void;
  onClose: () => void;
}) {
  const form = useRecordForm(AgainstEntry, { reason: '' });
  return (
    <RecordForm
      title={`${name}, against advice`}
      save="Choose it all the same"
      form={form}
      onSave={({ reason }) => {
        onReason(reason.trim());
        return null;
      }}
      onClose={onClose}
    >
      <ul className="list-disc pl-5">
        {stops.map((text) => (
          <li key={text}>{text}</li>
        ))}
      </ul>
      <p className="text-sm text-soft">
        The locally adopted code and the maker’s instructions rule. The reason stays with this choice and goes
        into the hand-over.
      </p>
      <FormText control={form.control} name="reason" label="Why" maxLength={400} autoFocus />
    </RecordForm>
  );
}

const nameOf = (device: Device | undefined) => (device ? deviceName(device) : 'a device');

const OUTCOME_WORDS: Record<string, string> = {
  block: 'blocks it',
  unproved: 'not proved',
  warn: 'caution',
  note: 'note',
};
