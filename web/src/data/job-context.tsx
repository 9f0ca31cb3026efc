import {
  type ConfirmedRole,
  type Conflict,
  changedRecords,
  confirmedIn,
  type EditPart,
  identificationRestsOn,
  isSameBasis,
  type Job,
  type JobLookup,
  lookup,
  perObject,
  type Remedy,
  type SeenAndRead,
  sameJson,
} from '@inventario/core';
import { type Remote, wrap } from 'comlink';
import {
  createContext,
  type ReactNode,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
} from 'react';
import { useSay } from '../ui/say.js';
import { ApiError, isPassing } from './api.js';
import type {
  BoxReckoning,
  DiagnosisAnswer,
  Engines,
  HouseNews,
  Identified,
  JudgedDevice,
  WiringAnswer,
  WiringRow,
} from './engines.worker.js';
import { Listeners } from './listeners.js';
import { PlannerWorker } from './planner.js';
import { browserTools } from './session/browser-tools.js';
import { type Hindrance, JobSession, type SessionState } from './session/job-session.js';
import { askToStay } from './session/shelf.js';

/** What the engines say of every box, by its id. */
export type House = ReadonlyMap<string, BoxReckoning>;

/** The engines' last answer about the whole house; one for all who ask. */
class HouseAnswer {
  private current: House | null = null;
  private key = '';
  private readonly listeners = new Listeners();
  readonly subscribe = this.listeners.subscribe;
  readonly get = (): House | null => this.current;
  take({ key, boxIds, news }: HouseNews): void {
    const before = this.key === key ? this.current : null;
    const fresh = new Map(news.map((reckoning) => [reckoning.boxId, reckoning]));
    this.key = key;
    this.current = new Map(
      boxIds.flatMap((boxId) => {
        const reckoning = fresh.get(boxId) ?? before?.get(boxId);
        return reckoning ? [[boxId, reckoning] as const] : [];
      }),
    );
    this.listeners.tell();
  }
}

/** An engine worker with its own copy of the job. */
interface EngineWorker {
  remote: Remote<Engines>;
  /** Settles when the worker has seen the job as it is now. */
  synced: Promise<unknown>;
}

function engineWorker(): EngineWorker {
  const worker = new Worker(new URL('./engines.worker.ts', import.meta.url), { type: 'module' });
  return { remote: wrap<Engines>(worker), synced: Promise.resolve() };
}

/** What computes for an open job. */
export interface JobEngines {
  /** Fill, fit and progress: an answer to every keystroke. */
  verdicts: EngineWorker;
  /** Reads roles out of readings. Weighing explanations may take a while, and no verdict waits for it. */
  roles: EngineWorker;
  planner: PlannerWorker;
}

/** What readings were last said to confirm, by box and conductor: for whoever asks without a box in hand. */
type ConfirmedBoxes = ReadonlyMap<string, ReadonlyMap<string, ConfirmedRole>>;

class ConfirmedAnswers {
  private current: ConfirmedBoxes = new Map();
  private readonly listeners = new Listeners();
  readonly subscribe = this.listeners.subscribe;
  readonly get = (): ConfirmedBoxes => this.current;
  take(boxId: string, identified: Identified | null): void {
    const roles = identified ? confirmedIn(identified) : new Map<string, ConfirmedRole>();
    const before = this.current.get(boxId);
    if (sameJson([...(before ?? [])], [...roles])) return;
    this.current = new Map([...this.current, [boxId, roles]]);
    this.listeners.tell();
  }
}

interface JobContextValue extends JobEngines {
  session: JobSession;
  house: HouseAnswer;
  confirmed: ConfirmedAnswers;
}

const Context = createContext<JobContextValue | null>(null);

/** Why a job cannot be opened here. */
function unopenedWords(reason: unknown): string {
  if (reason instanceof ApiError && reason.code === 'no-such-job')
    return 'There is no such job here any more.';
  const words = reason instanceof Error ? reason.message : String(reason);
  return isPassing(reason) ? `${words} Trying again …` : words;
}

/** Opens a job for everything below it; what went wrong instead is given to `failed`. */
export function JobProvider({
  jobId,
  children,
  waiting,
  failed,
}: {
  jobId: string;
  children: ReactNode;
  waiting: ReactNode;
  failed: (message: string) => ReactNode;
}) {
  const [session, setSession] = useState<JobSession | null>(null);
  const [error, setError] = useState<string | null>(null);
  const [engines] = useState<JobEngines>(() => ({
    verdicts: engineWorker(),
    roles: engineWorker(),
    planner: new PlannerWorker(),
  }));

  useEffect(() => {
    let open: JobSession | undefined;
    let left = false;
    let again: ReturnType<typeof setTimeout> | undefined;
    setSession(null);
    setError(null);
    const begin = () =>
      JobSession.open(jobId, browserTools(jobId)).then(
        (opened) => {
          if (left) return;
          open = opened;
          opened.start();
          void askToStay();
          setError(null);
          setSession(opened);
        },
        (reason: unknown) => {
          if (left) return;
          setError(unopenedWords(reason));
          // This device has nothing of the job to show: as soon as the server gives it, it is there.
          if (isPassing(reason)) again = setTimeout(begin, 3000);
        },
      );
    void begin();
    return () => {
      left = true;
      clearTimeout(again);
      open?.close();
    };
  }, [jobId]);

  if (error) return failed(error);
  if (!session) return waiting;
  return (
    <OpenedJob session={session} engines={engines}>
      {children}
    </OpenedJob>
  );
}

/** An open job for everything below it; the engines are told of every change. */
export function OpenedJob({
  session,
  engines,
  children,
}: {
  session: JobSession;
  engines: JobEngines;
  children: ReactNode;
}) {
  const [house] = useState(() => new HouseAnswer());
  const [confirmed] = useState(() => new ConfirmedAnswers());
  const { verdicts, roles, planner } = engines;
  useEffect(() => () => planner.close(), [planner]);
  useEffect(() => {
    let last: Job | null = null;
    let turn = 0;
    const bring = () => {
      const { job } = session.state();
      if (job === last) return;
      const [whole, changes] = last ? [null, changedRecords(last, job)] : [job, []];
      last = job;
      for (const engine of [verdicts, roles]) engine.synced = engine.remote.update(job.id, whole, changes);
      turn += 1;
      const mine = turn;
      // When the next edit is there already, its answer will do.
      const answer = verdicts.synced.then(() => (mine === turn ? verdicts.remote.house() : null));
      answer.then(
        (news) => news && house.take(news),
        (error: unknown) => console.error('an engine failed', error),
      );
    };
    bring();
    return session.subscribe(bring);
  }, [session, verdicts, roles, house]);

  const value = useMemo(
    () => ({ session, verdicts, roles, house, planner, confirmed }),
    [session, verdicts, roles, house, planner, confirmed],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

function useJobContext(): JobContextValue {
  const value = useContext(Context);
  if (!value) throw new Error('useJob is called outside a JobProvider: wrap the screen in one');
  return value;
}

/** One lookup a job, however many parts of the screen ask. */
const lookupOf = perObject((job: Job): JobLookup => lookup(job));

export interface OpenJob extends SessionState {
  known: JobLookup;
  /** Records an edit; what hinders it is said in words. @returns whether it was recorded */
  apply(parts: EditPart[], label: string, mergeKey?: string): boolean;
  /** The same, and says what came of it with the way back. */
  applyAndSay(parts: EditPart[], label: string, said: string): boolean;
  /** For a form, which says itself what hinders. @returns null when it was recorded */
  attempt(parts: EditPart[], label: string): string | null;
  /** @returns what stays because others changed it since */
  undo(): Conflict[];
  redo(): Conflict[];
  /** @returns what hinders it; the question then stays */
  settle(editId: string, choice: 'theirs' | 'mine', parts?: EditPart[]): Hindrance | null;
  /** Takes the job off this device, with everything unsent. */
  forget(): Promise<void>;
}

/** The open job as it stands with this device's unsent edits, and the way to change it. */
export function useJob(): OpenJob {
  const { session } = useJobContext();
  const state = useSyncExternalStore(session.subscribe, session.state);
  const known = lookupOf(state.job);
  const say = useSay();
  return useMemo(() => {
    const apply = (parts: EditPart[], label: string, mergeKey?: string) => {
      const hindered = session.apply(parts, label, mergeKey);
      if (hindered) say(`That cannot be recorded: ${hindered}.`);
      return !hindered;
    };
    return {
      ...state,
      known,
      apply,
      applyAndSay: (parts, label, said) => {
        const recorded = apply(parts, label);
        if (recorded) say(said, { label: 'Undo', run: () => session.undo() });
        return recorded;
      },
      attempt: (parts, label) => session.apply(parts, label),
      undo: () => session.undo(),
      redo: () => session.redo(),
      settle: (editId, choice, parts) => session.settle(editId, choice, parts),
      forget: () => session.forget(),
    };
  }, [state, known, session, say]);
}

/** What the engines say of the house; the last answer stays until the next is there. */
export function useHouse(): House | null {
  const { house } = useJobContext();
  return useSyncExternalStore(house.subscribe, house.get);
}

/** What the readings say of one box, and whether it is said of the record as it is now. */
export interface LatestIdentified {
  identified: Identified | null;
  isCurrent: boolean;
}

export function useIdentifiedNow(boxId: string): LatestIdentified {
  const { roles, session, confirmed } = useJobContext();
  const { job } = useSyncExternalStore(session.subscribe, session.state);
  const key = useMemo(() => {
    const known = lookupOf(job);
    const box = known.boxes.get(boxId);
    return { boxId, restsOn: box ? identificationRestsOn(box, known) : null, job };
  }, [job, boxId]);
  const { answer, to } = useLatestOf(key, () => roles.synced.then(() => roles.remote.identify(boxId)));
  const identified = to?.boxId === boxId ? answer : null;
  useEffect(() => confirmed.take(boxId, identified), [confirmed, boxId, identified]);
  // A name or a photograph changes words at most; what was weighed still holds.
  const isCurrent =
    to?.boxId === boxId &&
    (to.job === job ||
      (to.restsOn !== null && key.restsOn !== null && isSameBasis(to.restsOn, key.restsOn, 'all')));
  return { identified, isCurrent };
}

/** What the readings say of one box; the last answer stays until the next is there. */
export function useIdentified(boxId: string): Identified | null {
  return useIdentifiedNow(boxId).identified;
}

/** What the readings of every box looked at so far confirm. */
export function useConfirmed(): ConfirmedBoxes {
  const { confirmed } = useJobContext();
  return useSyncExternalStore(confirmed.subscribe, confirmed.get);
}

/** Ways out for a box that does not close. */
export function useRemedies(boxId: string): Remedy[] | null {
  const { roles, session } = useJobContext();
  const { job } = useSyncExternalStore(session.subscribe, session.state);
  const key = useMemo(() => ({ job, boxId }), [job, boxId]);
  return useLatest(key, () => roles.synced.then(() => roles.remote.remedies(boxId)));
}

/** How a box is put together; the last answer stays until the next is there. */
export function useWiring(boxId: string): WiringAnswer | null {
  const { roles, session } = useJobContext();
  const { job } = useSyncExternalStore(session.subscribe, session.state);
  const key = useMemo(() => ({ job, boxId }), [job, boxId]);
  const answer = useLatest(key, () => roles.synced.then(() => roles.remote.wiring(boxId)));
  return answer?.boxId === boxId ? answer : null;
}

/** The wiring of every box with a choice; null while it is being worked out. */
export function useHouseWiring(): WiringRow[] | null {
  const { roles, session } = useJobContext();
  const { job } = useSyncExternalStore(session.subscribe, session.state);
  return useLatest(job, () => roles.synced.then(() => roles.remote.houseWiring()));
}

/** Why a place does not work; undefined while it is worked out, null where nothing is planned there. */
export function useDiagnosis(
  place: { boxId: string; position: number },
  { seen, readings }: SeenAndRead,
): DiagnosisAnswer | null | undefined {
  const { roles, session } = useJobContext();
  const { job } = useSyncExternalStore(session.subscribe, session.state);
  const { boxId, position } = place;
  const told = JSON.stringify([seen, readings]);
  const key = useMemo(() => ({ job, boxId, position, told }), [job, boxId, position, told]);
  const answer = useLatest(key, async () => ({
    told: await roles.synced.then(() => roles.remote.diagnose({ boxId, position }, { seen, readings })),
  }));
  return answer?.told;
}

/** Every device at one place, judged. */
export function usePlace(boxId: string, position: number): JudgedDevice[] | null {
  const { verdicts, session } = useJobContext();
  const { job } = useSyncExternalStore(session.subscribe, session.state);
  const key = useMemo(() => ({ job, boxId, position }), [job, boxId, position]);
  return useLatest(key, () => verdicts.synced.then(() => verdicts.remote.place(boxId, position)));
}

/** The worker that decides for the whole house. */
export function usePlanner(): PlannerWorker {
  return useJobContext().planner;
}

/** Photographs of this device that the server does not have yet, and the way to add one. */
export function usePhotoQueue() {
  const { session } = useJobContext();
  const { photos } = session;
  const waiting = useSyncExternalStore(photos.subscribe, photos.state);
  return useMemo(
    () => ({ waiting, add: (photoId: string, picture: Blob) => session.addPhoto(photoId, picture) }),
    [session, waiting],
  );
}

/** The answer to the latest question; the one before stays until it is there. */
export function useLatest<Result>(key: unknown, ask: () => Promise<Result>): Result | null {
  return useLatestOf(key, ask).answer;
}

/** The same, and the question that the answer is to: another than now while the next is not there yet. */
function useLatestOf<Key, Result>(
  key: Key,
  ask: () => Promise<Result>,
): { answer: Result | null; to: Key | null } {
  const [result, setResult] = useState<{ to: Key | null; answer: Result | null }>({ to: null, answer: null });
  // The key stands for everything the question depends on: it is asked again when the key is another.
  const asking = useRef({ key, ask });
  asking.current = { key, ask };
  useEffect(() => {
    let stale = false;
    if (asking.current.key !== key) return;
    asking.current.ask().then(
      // An answer that says the same is the same: nothing is drawn again for it.
      (answer) =>
        !stale &&
        setResult((before) => ({
          to: key,
          answer: sameJson(before.answer, answer) ? before.answer : answer,
        })),
      (error: unknown) => console.error('an engine failed', error),
    );
    return () => {
      stale = true;
    };
  }, [key]);
  return result;
}
