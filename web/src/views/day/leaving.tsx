import { type BeforeLeaving, setParts, type ToHave, toHaveText } from '@inventario/core';
import { Square, SquareCheck } from 'lucide-react';
import { Link } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { useUnits } from '../../data/preferences.js';
import { paths } from '../../parts/paths.js';

/** What is packed, checked and told before anybody leaves. */
export function Leaving({ leaving }: { leaving: BeforeLeaving }) {
  const { job } = useJob();
  return (
    <div className="grid gap-4 md:grid-cols-2 xl:grid-cols-3">
      <List title="In the van" items={leaving.van}>
        <Link className="flex min-h-11 items-center underline" to={paths.materials(job.id)}>
          Devices and parts: the materials
        </Link>
      </List>
      <List title="On the client’s phone" items={leaving.phone} />
      <List title="With the client" items={leaving.client} />
      <Signal boxIds={leaving.signal} />
    </div>
  );
}

function List({
  title,
  items,
  children,
}: {
  title: string;
  items: readonly ToHave[];
  children?: React.ReactNode;
}) {
  const { job, known, apply } = useJob();
  const units = useUnits(job);
  const ready = job.run?.ready ?? [];
  const tick = (key: string, label: string) => {
    const next = ready.includes(key) ? ready.filter((other) => other !== key) : [...ready, key];
    apply(setParts('job', job.id, job, { run: { ...job.run, ready: next } }), label);
  };
  const left = items.filter(({ key }) => !ready.includes(key)).length;
  return (
    <section>
      <h2 className="flex items-baseline gap-2 font-bold">
        {title}
        <span className="ml-auto text-sm font-normal text-soft">
          {items.length === 0 ? 'nothing' : left === 0 ? 'all ready' : `${left} to go`}
        </span>
      </h2>
      <ul>
        {items.map((item) => {
          const isReady = ready.includes(item.key);
          const text = toHaveText(item, known, units);
          const Icon = isReady ? SquareCheck : Square;
          return (
            <li key={item.key} className="border-t border-rule">
              <button
                type="button"
                aria-pressed={isReady}
                className="flex min-h-11 w-full items-center gap-2 rounded-md px-1 py-1 text-left leading-tight hover:bg-well"
                onClick={() => tick(item.key, `${isReady ? 'Not ready' : 'Ready'}: ${text}`)}
              >
                <Icon aria-hidden className="size-6 shrink-0" />
                {text}
              </button>
            </li>
          );
        })}
      </ul>
      {children}
    </section>
  );
}

function Signal({ boxIds }: { boxIds: readonly string[] }) {
  const { job, known } = useJob();
  return (
    <section>
      <h2 className="font-bold">Signal, before the power goes off</h2>
      {boxIds.length === 0 && <p>Read at every box that needs it.</p>}
      <ul>
        {boxIds.map((id) => (
          <li key={id} className="border-t border-rule">
            <Link className="flex min-h-11 items-center underline" to={paths.box(job.id, id)}>
              {known.boxes.get(id)?.name}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
