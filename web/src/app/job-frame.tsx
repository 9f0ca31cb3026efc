import { profileOf } from '@inventario/core';
import { CircleHelp, CloudOff, History, Moon, Redo2, Ruler, Sun, Undo2 } from 'lucide-react';
import { Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { Link, NavLink, Outlet, useLocation, useMatch, useNavigate, useParams } from 'react-router';
import { JobProvider, useJob } from '../data/job-context.js';
import { usePreferences, useUnits } from '../data/preferences.js';
import { GroundLetter } from '../drawings/role-mark.js';
import { SheetsContext } from '../parts/bench.js';
import { paths } from '../parts/paths.js';
import { ShortcutHelp, useShortcuts } from '../parts/shortcuts.js';
import { Button } from '../ui/button.js';
import { classes } from '../ui/classes.js';
import { EdgeSheet } from '../ui/dialog.js';
import { Empty } from '../ui/empty.js';
import { Menu, type MenuEntry } from '../ui/menu.js';
import { Keeping } from './keeping.js';
import { PowerBar } from './power-bar.js';
import { QuestionsTray } from './questions.js';
import { useUndo } from './undo.js';
import { Walk } from './walk.js';

/** Everything of one job: header, power bar, walk, and the view with its reckoning. */
export function JobFrame() {
  const { jobId = '' } = useParams();
  return (
    <JobProvider
      jobId={jobId}
      waiting={<p className="p-6">Opening the job …</p>}
      failed={(message) => (
        <div className="p-6">
          <Empty title="This job cannot be opened">
            <p>{message}</p>
            <Link className="underline" to={paths.jobs}>
              All jobs
            </Link>
          </Empty>
        </div>
      )}
    >
      <Frame />
    </JobProvider>
  );
}

function Frame() {
  const { job } = useJob();
  const { undo, redo } = useUndo();
  const [open, setOpen] = useState<'walk' | 'reckoning' | null>(null);
  const [help, setHelp] = useState(false);
  const sheets = useMemo(() => ({ open, setOpen, jobName: job.name }), [open, job.name]);
  const navigate = useNavigate();
  const boxId = useMatch('/jobs/:jobId/box/:boxId/*')?.params.boxId;
  useShortcuts({
    'mod+z': undo,
    'mod+shift+z': redo,
    'mod+y': redo,
    '?': () => setHelp(true),
    b: () => navigate(paths.board(job.id)),
  });
  return (
    <SheetsContext.Provider value={sheets}>
      <GroundLetter.Provider value={profileOf(job).words.groundMark}>
        <div className="flex h-dvh flex-col print:block print:h-auto">
          <a href={boxId ? '#conductors' : '#bench'} className="sr-only focus:not-sr-only focus:p-3">
            {boxId ? 'To the conductors' : 'To the bench'}
          </a>
          <div className="print:hidden">
            <Header boxId={boxId} onHelp={() => setHelp(true)} />
            <Keeping />
            <div className="border-b border-rule">
              <PowerBar boxId={boxId} />
            </div>
          </div>
          <div className="flex min-h-0 flex-1 print:block">
            <div className="relative hidden w-62 shrink-0 overflow-y-auto border-r border-rule lg:block print:hidden">
              <Walk />
            </div>
            <Suspense fallback={<p className="p-4">Opening …</p>}>
              <Outlet />
            </Suspense>
          </div>
        </div>
        <EdgeSheet title="Walk" side="left" open={open === 'walk'} onClose={() => setOpen(null)}>
          <Walk onGo={() => setOpen(null)} />
        </EdgeSheet>
        <ShortcutHelp open={help} onClose={() => setHelp(false)} />
      </GroundLetter.Provider>
    </SheetsContext.Provider>
  );
}

function Header({ boxId, onHelp }: { boxId: string | undefined; onHelp: () => void }) {
  const { job, undoLabel, redoLabel } = useJob();
  const { undo, redo } = useUndo();
  const navigate = useNavigate();
  const preferences = usePreferences();
  const phases = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  // On a phone the phases do not all fit: the one in hand is brought into sight.
  useEffect(() => {
    if (pathname)
      phases.current
        ?.querySelector('[aria-current=page]')
        ?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [pathname]);
  const units = useUnits(job);
  const entries: MenuEntry[] = [
    preferences.theme === 'dark'
      ? { label: 'Light, for the desk', icon: Sun, onPick: () => preferences.setTheme('light') }
      : { label: 'Dark, for work by torch', icon: Moon, onPick: () => preferences.setTheme('dark') },
    units === 'inch'
      ? { label: 'Show mm and mL', icon: Ruler, onPick: () => preferences.setUnits('metric') }
      : { label: 'Show inches and in³', icon: Ruler, onPick: () => preferences.setUnits('inch') },
    ...(boxId
      ? [
          {
            label: 'History of this box',
            icon: History,
            onPick: () => navigate(paths.history(job.id, boxId)),
          },
        ]
      : []),
    { label: 'History of the job', icon: History, onPick: () => navigate(paths.history(job.id)) },
    { label: 'Keys', icon: CircleHelp, onPick: onHelp },
  ];
  return (
    <header className="flex items-center gap-x-1 border-b border-rule px-2 lg:px-3">
      <Link to={paths.jobs} className="flex min-h-11 items-center gap-2 pr-2" title="All jobs">
        <img src="/mark.svg" alt="All jobs" className="size-8 rounded dark:bg-sheet" />
        <span className="hidden max-w-64 truncate font-bold xl:inline">{job.name}</span>
      </Link>
      <nav ref={phases} aria-label="Phases" className="flex min-w-0 flex-1 overflow-x-auto">
        <Phase to={paths.board(job.id)} end>
          Board
        </Phase>
        <Phase to={paths.brief(job.id)}>Brief</Phase>
        <Phase to={paths.house(job.id)}>House</Phase>
        <Phase to={paths.panel(job.id)}>Panel</Phase>
        <Phase to={paths.fit(job.id)}>Fit</Phase>
        <Phase to={paths.plans(job.id)}>Plans</Phase>
        <Phase to={paths.materials(job.id)}>Materials</Phase>
        <Phase to={paths.day(job.id)}>Day</Phase>
        <Phase to={paths.wiring(job.id)}>Wire</Phase>
        <Phase to={paths.install(job.id)}>Install</Phase>
        <Phase to={paths.pair(job.id)}>Pair</Phase>
        <Phase to={paths.tune(job.id)}>Tune</Phase>
        <Phase to={paths.names(job.id)}>Names</Phase>
        <Phase to={paths.rules(job.id)}>Rules</Phase>
        <Phase to={paths.catalogue(job.id)}>Catalogue</Phase>
      </nav>
      <QuestionsTray />
      <SendState />
      <Button
        kind="quiet"
        icon={Undo2}
        iconOnly
        disabled={undoLabel === null}
        onClick={undo}
        title={undoLabel ? `Undo: ${undoLabel}` : 'Nothing to undo'}
      >
        {undoLabel ? `Undo: ${undoLabel}` : 'Undo'}
      </Button>
      {redoLabel !== null && (
        <Button kind="quiet" icon={Redo2} iconOnly onClick={redo} title={`Redo: ${redoLabel}`}>
          {`Redo: ${redoLabel}`}
        </Button>
      )}
      <Menu name="More" entries={entries} />
    </header>
  );
}

function Phase({ to, end, children }: { to: string; end?: boolean; children: string }) {
  return (
    <NavLink
      to={to}
      end={end ?? false}
      className={({ isActive }) =>
        classes(
          'flex min-h-11 items-center border-b-3 px-3',
          isActive ? 'border-ink font-bold' : 'border-transparent hover:bg-well',
        )
      }
    >
      {children}
    </NavLink>
  );
}

/**
 * Says plainly what has not been sent yet. All is sent when nothing waits, for the server or for an answer.
 */
function SendState() {
  const { pending, questions, reached, made } = useJob();
  const said = () => {
    if (pending > 0) return `${pending} not sent yet`;
    if (questions.length > 0) return 'Waits for your answer';
    if (made) return 'On this device only';
    return reached ? 'All sent' : 'Server not reached';
  };
  const text = said();
  return (
    <span
      role="status"
      className="flex items-center gap-1.5 px-1 text-sm whitespace-nowrap text-soft"
      title={
        reached ? 'The server is reached' : 'The server is not reached; everything is kept on this device'
      }
    >
      {!reached && <CloudOff aria-hidden className="size-5" />}
      <span className={classes((text === 'All sent' || questions.length > 0) && 'sr-only sm:not-sr-only')}>
        {text}
      </span>
    </span>
  );
}
