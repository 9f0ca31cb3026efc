import { type ChannelTask, nameFindingText, namesOf, namesWith, namingParts } from '@inventario/core';
import { useMemo, useState } from 'react';
import { newId } from '../data/ids.js';
import { useJob } from '../data/job-context.js';
import { Button } from '../ui/button.js';
import { TextField } from '../ui/field.js';

/** The name of one channel, with what would speak against it while it is typed. */
export function NameKeys({ at, onNamed }: { at: ChannelTask; onNamed?: () => void }) {
  const { known, apply } = useJob();
  const suggested = useMemo(
    () =>
      namesOf(known).find(
        ({ boxId, position, channel }) =>
          boxId === at.box.id && position === at.position.index && channel === at.channel.id,
      ),
    [known, at],
  );
  const [typed, setTyped] = useState<string | null>(null);
  const name = typed ?? at.record?.name ?? suggested?.suggestion ?? '';
  const findings = useMemo(() => namesWith(known, at, name), [known, at, name]);
  const which = at.channel.name ?? `channel ${at.channel.id}`;
  const label = at.device.channels.length > 1 ? `Name of ${which}` : 'Name';
  const rather = suggested?.suggestion === name ? null : (suggested?.suggestion ?? null);
  // What it is called already is no news; a better one is then the one key.
  const isNews = name.trim() !== (at.record?.name ?? '');
  const next = isNews || rather === null ? name.trim() : rather;
  const save = () => {
    if (apply(namingParts(at, { name: next }, newId), `${at.box.name} is named ${next}`)) {
      setTyped(null);
      onNamed?.();
    }
  };
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <TextField label={label} value={name} maxLength={100} onText={setTyped} />
      <ul aria-label="What speaks against it" className="text-sm" aria-live="polite">
        {findings.map((finding) => (
          <li key={`${finding.code}${finding.platform}`}>{nameFindingText(finding, known)}</li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-1.5">
        {(isNews || rather !== null) && (
          <Button kind="main" type="submit" className="min-h-14 flex-1 text-lg" disabled={next === ''}>
            {isNews ? 'Name it so' : `Name it ${rather}`}
          </Button>
        )}
        {isNews && rather !== null && (
          <Button className="min-h-14" onClick={() => setTyped(rather)}>
            Rather: {rather}
          </Button>
        )}
      </div>
    </form>
  );
}
