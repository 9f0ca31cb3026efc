import type { Conflict } from '../../job/edit/conflicts.js';
import type { EditPart } from '../../job/edit/edit.js';
import { putPart } from '../../job/edit/parts.js';
import type { RecordProblem } from '../../job/edit/record-problems.js';
import { reduce } from '../../job/edit/reduce.js';
import { differences, shapeOf } from '../../job/edit/three-way.js';
import { findRecord, type JobRecord, type RecordKind, recordName } from '../../job/records.js';
import type { Job } from '../../job/schema/job.js';
import type { Role } from '../../job/schema/primitives.js';
import type { Box } from '../../job/schema/survey.js';
import { profileOf } from '../../practice/profiles.js';
import { cableWords, conductorWords } from '../../survey/conductor-names.js';

/** One fact that differs, in words: what it is, what it was and what it became. */
export interface FactWords {
  what: string;
  was: string;
  now: string;
}

/** A question about an edit, in words; `mine` can be written anew when it is a text or a number. */
export interface QuestionWords {
  what: string;
  was: string;
  theirs: string;
  mine: string;
  writes: 'text' | 'number' | null;
}

const KIND_WORDS: Record<RecordKind, string> = {
  job: 'the job',
  circuit: 'circuit',
  room: 'room',
  load: 'load',
  box: 'box',
  run: 'cable run',
  group: 'group of places',
  controlPoint: 'control on the wall',
  thing: 'thing',
  selection: 'choice',
  pairing: 'pairing',
  hubSetup: 'hub',
  account: 'account',
  automation: 'rule',
  event: 'entry of the log',
  photo: 'photograph',
  override: 'figure',
  device: 'device of the catalogue',
  hub: 'hub of the catalogue',
  part: 'part of the catalogue',
  connector: 'connector of the catalogue',
  enclosure: 'box of the catalogue',
  platform: 'platform',
};

/** What a field is called where splitting its name would not do. */
const FIELD_WORDS: Readonly<Record<string, string>> = {
  at: 'where it ends',
  ends: 'where it ends',
  circuitIds: 'circuits',
  loadIds: 'loads',
  roomId: 'room',
  deviceId: 'device',
  wattsEach: 'watts each',
  rssi: 'signal',
  supportFittings: 'support fittings',
  against: 'why it was chosen all the same',
  with: 'parts with it',
  need: 'what the client wants',
};

/** Of one part of an edit: each fact it changed, in the job it was made on or leads to. */
export function partFacts(job: Job, part: EditPart): FactWords[] {
  const name = recordWords(job, part.kind, part.id, part.put);
  if (part.remove) return [{ what: name, was: 'there', now: 'taken out' }];
  if (part.put) return [{ what: name, was: 'not there', now: 'added' }];
  if (part.append)
    return Object.entries(part.append).map(([field, items]) => ({
      what: `${name}: ${fieldWords(field)}`,
      was: '',
      now: `${items.length} added`,
    }));
  return Object.entries(part.set ?? {}).flatMap(([field, { was, now }]) =>
    differences(shapeOf(part.kind, field), was ?? undefined, now ?? undefined).map((fact) => ({
      what: factWords(job, part, field, fact.path),
      was: valueWords(job, part, field, fact.was),
      now: valueWords(job, part, field, fact.now),
    })),
  );
}

/**
 * One conflict of a question.
 * @param records as they were known, by kind and id: what is not in the job any more is named by them
 */
export function conflictFacts(
  now: Job,
  conflict: Conflict,
  records: Readonly<Record<string, object>> = {},
): QuestionWords {
  const job = withKnown(now, conflict, records);
  const { field, path = [], was, theirs, yours } = conflict;
  if (field === undefined) {
    const removing = yours === null && theirs !== null;
    const name = recordWords(
      job,
      conflict.kind,
      conflict.id,
      (theirs ?? yours ?? undefined) as JobRecord | undefined,
    );
    return {
      what: name,
      was: 'there',
      theirs: theirs === null || theirs === undefined ? 'taken out' : 'changed',
      mine: removing ? 'taken out' : 'changed',
      writes: null,
    };
  }
  const kind = [was, theirs, yours].map((value) =>
    value === null || value === undefined ? 'nothing' : typeof value,
  );
  const plain = (type: string) =>
    kind.some((each) => each === type) && kind.every((each) => each === type || each === 'nothing');
  return {
    what: factWords(job, conflict, field, path),
    was: valueWords(job, conflict, field, was),
    theirs: valueWords(job, conflict, field, theirs),
    mine: valueWords(job, conflict, field, yours),
    writes: plain('number')
      ? 'number'
      : plain('string') && FREE_TEXT.has(path.at(-1) ?? field)
        ? 'text'
        : null,
  };
}

/** The job with what a conflict is about still in it. */
function withKnown(job: Job, { kind, id }: Conflict, records: Readonly<Record<string, object>>): Job {
  const known = records[recordName({ kind, id })];
  if (!known || findRecord(job, kind, id)) return job;
  const back = reduce(job, { parts: [putPart(kind, id, known)] });
  return back.ok ? back.job : job;
}

/** What is wrong with a word somebody wrote for one fact. */
export function wordProblem({ message }: Pick<RecordProblem, 'message'>): string {
  return message.startsWith('is missing') ? 'It cannot be left empty.' : `It ${message}.`;
}

/** Fields in which anything may be written. */
const FREE_TEXT = new Set([
  'name',
  'notes',
  'note',
  'label',
  'address',
  'breaker',
  'panel',
  'marking',
  'entry',
  'against',
  'contact',
  'kind',
]);

/** What a record is called: `box Hall, by the door`, `breaker 14 (Kitchen lights)`. */
export function recordWords(job: Job, kind: RecordKind, id: string, given?: JobRecord): string {
  if (kind === 'job') return KIND_WORDS.job;
  const record = findRecord(job, kind, id)?.record ?? given;
  if (kind === 'circuit')
    return record ? `breaker ${String(record.breaker)} (${String(record.label)})` : 'a circuit';
  if (kind === 'selection' || kind === 'pairing') {
    const [boxId = '', position] =
      kind === 'selection' ? id.split('/') : [String(record?.boxId ?? ''), String(record?.position ?? '')];
    return `${KIND_WORDS[kind]} for ${nameOf(job, boxId) ?? 'a box'}, position ${position ?? '?'}`;
  }
  if (kind === 'event' || kind === 'photo') {
    const about = nameOf(job, String(record?.boxId ?? record?.circuitId ?? ''));
    return `${KIND_WORDS[kind]}${kind === 'event' && record ? ` “${String(record.kind)}”` : ''}${about ? ` of ${about}` : ''}`;
  }
  const name = record?.name ?? record?.model ?? record?.figure;
  return `${KIND_WORDS[kind]} ${typeof name === 'string' && name !== '' ? name : id}`;
}

function factWords(
  job: Job,
  { kind, id }: { kind: RecordKind; id: string },
  field: string,
  path: readonly string[],
): string {
  const name = recordWords(job, kind, id);
  const [key, ...rest] = path;
  const box = kind === 'box' ? job.boxes.find((entry) => entry.id === id) : undefined;
  const thing = box && key !== undefined ? thingWords(box, job, field, key) : undefined;
  const steps = thing ? rest : [field, ...path];
  const tail = steps.filter((step) => !/^\d+$/.test(step)).map(fieldWords);
  return [name, ...(thing ? [thing] : []), ...tail].join(': ');
}

/** One thing of a box, by the list it stands in. */
function thingWords(box: Box, job: Job, field: string, key: string): string | undefined {
  if (field === 'conductors') return conductorWords(box, key, job);
  if (field === 'labels') return `what ${conductorWords(box, key, job)} is`;
  if (field === 'joints') return jointWords(box, key);
  if (field === 'cables') return cableWords(box, key, job);
  if (field === 'positions') return `position ${key}`;
  if (field === 'readings') return 'a reading';
  return undefined;
}

function jointWords(box: Box | undefined, id: string): string {
  const at = box?.joints.findIndex((joint) => joint.id === id) ?? -1;
  return at < 0 ? 'a joint' : `joint ${at + 1}`;
}

function valueWords(
  job: Job,
  { kind, id }: { kind: RecordKind; id: string },
  field: string,
  value: unknown,
): string {
  const box = kind === 'box' ? job.boxes.find((entry) => entry.id === id) : undefined;
  return inWords(job, box, field, value);
}

function inWords(job: Job, box: Box | undefined, field: string, value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return nameOf(job, value) ?? value;
  if (typeof value !== 'object') return String(value);
  if (Array.isArray(value)) {
    const words = value.slice(0, MOST_TOLD).map((item) => inWords(job, box, field, item));
    const more = value.length - words.length;
    return value.length === 0 ? 'none' : `${words.join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
  }
  const record = value as JobRecord;
  const place = placeWords(box, record);
  if (place) return place;
  if (typeof record.role === 'string')
    return [
      profileOf(job).words.roles[record.role as Role] ?? record.role,
      ...idsOf(record).map((each) => nameOf(job, each)),
    ]
      .filter(Boolean)
      .join(', ');
  if (typeof record.name === 'string' && record.name !== '') return record.name;
  if ('value' in record && 'tool' in record) return `${String(record.tool)} ${String(record.value)}`;
  const told = Object.entries(record).filter(([name, item]) => name !== 'id' && typeof item !== 'object');
  return (
    told.map(([name, item]) => `${fieldWords(name)} ${inWords(job, box, name, item)}`).join(', ') || 'changed'
  );
}

const MOST_TOLD = 6;

/** Where a conductor ends. */
function placeWords(box: Box | undefined, at: JobRecord): string | undefined {
  if (typeof at.joint === 'string') return `in ${jointWords(box, at.joint)}`;
  if (typeof at.position === 'number' && typeof at.terminal === 'string')
    return `on terminal ${at.terminal} of position ${at.position}`;
  if (at.boxScrew === true) return 'on the screw of the box';
  return at.capped === true ? 'capped' : undefined;
}

const idsOf = (label: JobRecord): string[] =>
  [...((label.loadIds as string[] | undefined) ?? []), label.circuitId].filter(
    (id): id is string => typeof id === 'string',
  );

/** What an id of the job stands for; nothing when it is none. */
function nameOf(job: Job, id: string): string | undefined {
  const circuit = job.circuits.find((entry) => entry.id === id);
  if (circuit) return `breaker ${circuit.breaker}`;
  const named = [job.rooms, job.loads, job.boxes]
    .flatMap((list) => list as { id: string; name: string }[])
    .find((entry) => entry.id === id);
  return named?.name ?? job.catalogue.devices.find((entry) => entry.id === id)?.model;
}

function fieldWords(field: string): string {
  return (
    FIELD_WORDS[field] ??
    field.replaceAll(/([a-z])([A-Z])/g, (_, left, right) => `${left} ${right.toLowerCase()}`)
  );
}
