import { plural } from '@inventario/core';
import { CloudOff, FileDown, FilePlus, Trash2 } from 'lucide-react';
import { type ReactNode, useEffect } from 'react';
import { useNavigate } from 'react-router';
import { downloadJob } from '../data/downloads.js';
import { newId } from '../data/ids.js';
import { useJob } from '../data/job-context.js';
import { keptStore } from '../data/session/kept-store.js';
import { paths } from '../parts/paths.js';
import { Button } from '../ui/button.js';
import { useSay } from '../ui/say.js';

/** What threatens what was recorded, said at once and with the way to save it. Nothing when nothing does. */
export function Keeping() {
  const { job, removed, unkept } = useJob();
  useEffect(() => {
    if (unkept === 0) return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [unkept]);
  if (removed) return <Removed />;
  if (unkept === 0) return null;
  return (
    <Notice>
      <p className="min-w-0 flex-1 basis-60">
        This device cannot keep what you record: it has no room left, this is a private window, or another tab
        has an older Inventario open. {plural(unkept, 'edit exists', 'edits exist')} in this page only. Leave
        it open until all is sent, or save the job now.
      </p>
      <Button icon={FileDown} onClick={() => downloadJob(job)}>
        Save it as a file
      </Button>
    </Notice>
  );
}

/** The job was taken out on the server; what is kept of it is still here. */
function Removed() {
  const { job, pending, forget } = useJob();
  const navigate = useNavigate();
  const say = useSay();
  const asNewJob = async () => {
    const id = newId();
    await keptStore().write(id, { base: { job: { ...job, id }, sequence: 0, generation: null } });
    await forget();
    navigate(paths.board(id));
    say('It is a job of its own now, with everything recorded here.');
  };
  return (
    <Notice>
      <p className="min-w-0 flex-1 basis-60">
        This job was deleted elsewhere. What this device has of it is here
        {pending > 0 ? `, with ${plural(pending, 'edit')} that never reached the server` : ''}.
      </p>
      <Button icon={FilePlus} onClick={() => void asNewJob()}>
        Make it a new job
      </Button>
      <Button icon={FileDown} onClick={() => downloadJob(job)}>
        Save it as a file
      </Button>
      <Button kind="stop" icon={Trash2} onClick={() => void forget().then(() => navigate(paths.jobs))}>
        Take it off this device
      </Button>
    </Notice>
  );
}

function Notice({ children }: { children: ReactNode }) {
  return (
    <div role="alert" className="flex flex-wrap items-center gap-2 border-b-2 border-stop bg-sheet px-3 py-2">
      <CloudOff aria-hidden className="size-5 shrink-0 text-stop" />
      {children}
    </div>
  );
}
