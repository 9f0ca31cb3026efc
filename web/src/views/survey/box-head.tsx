import { type Box, keptAsPreset, likeThatOne, removalOf } from '@inventario/core';
import { Bookmark, Copy, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { keepPreset } from '../../data/own-presets.js';
import { paths } from '../../parts/paths.js';
import { PickSeveral } from '../../ui/choice.js';
import { TextField } from '../../ui/field.js';
import { Menu } from '../../ui/menu.js';
import { useSay } from '../../ui/say.js';
import { LikeThatOne } from './board/like-that-one.js';
import type { ChangeBox } from './change-box.js';

/** Which box it is, and what feeds it. */
export function BoxHead({ box, change }: { box: Box; change: ChangeBox }) {
  const { job, known, applyAndSay } = useJob();
  const navigate = useNavigate();
  const say = useSay();
  const [isLike, setLike] = useState(false);
  const name = box.name || 'the box';
  const remove = () => {
    if (applyAndSay(removalOf(job, 'box', box.id), `Delete ${name}`, `${name} is deleted.`))
      navigate(paths.board(job.id));
  };
  const moves = job.rooms
    .filter((room) => room.id !== box.roomId)
    .map((room) => ({
      label: `Move to ${room.name}`,
      onPick: () => change({ roomId: room.id }, `Move to ${known.rooms.get(room.id)?.name}`),
    }));
  const keep = () => {
    keepPreset({ id: newId(), name, practice: job.practice, box: keptAsPreset(box) });
    say(`${name} is kept among your usual boxes, on this device.`);
  };
  return (
    <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)_auto] items-end gap-2">
      <TextField
        label="Box"
        value={box.name}
        maxLength={100}
        onText={(text) => change({ name: text }, 'Name the box', 'name')}
        className="font-bold"
      />
      <PickSeveral
        label="Fed by"
        placeholder="not known"
        values={box.circuitIds}
        options={job.circuits.map((circuit) => ({
          value: circuit.id,
          label: `${circuit.breaker} ${circuit.label}`,
        }))}
        onChoice={(circuitIds) => change({ circuitIds }, 'Circuits of the box')}
      />
      <Menu
        name="More for this box"
        entries={[
          { label: 'Like that one …', icon: Copy, onPick: () => setLike(true) },
          ...(box.conductors.length > 0
            ? [{ label: 'Keep as a usual box of mine', icon: Bookmark, onPick: keep }]
            : []),
          ...moves,
          { label: 'Delete this box', icon: Trash2, stop: true, onPick: remove },
        ]}
      />
      {isLike && (
        <LikeThatOne
          box={box}
          onTaken={(like) => change(likeThatOne(box, like, newId), `Like ${like.name}`)}
          onClose={() => setLike(false)}
        />
      )}
    </div>
  );
}
