import { pairingManner, SEEN_WORDS } from '@inventario/core';
import { useState } from 'react';
import { Button } from '../../ui/button.js';
import { Segments } from '../../ui/choice.js';
import { Dialog } from '../../ui/dialog.js';
import { TextField } from '../../ui/field.js';
import type { PairingWork } from './use-pairing.js';

const CAME_TO = ['not-found', 'no-network', 'refused', 'full', 'owned', 'lost'] as const;

/** Failed, because …: what the app said, what the light showed, whether the list of clients names it. */
export function FailedSheet({ work, onClose }: { work: PairingWork; onClose: () => void }) {
  const [light, setLight] = useState('');
  const [listed, setListed] = useState<'yes' | 'no' | 'not looked'>('not looked');
  const lights = work.first.device.lights ?? [];
  const known = pairingManner(work.first.device).light !== null;
  return (
    <Dialog title="It did not join" open onClose={onClose}>
      <div className="flex flex-col gap-3">
        {lights.length > 0 ? (
          <Segments
            label="The light showed"
            value={light}
            options={lights.map(({ shows }) => ({ value: shows, label: shows }))}
            onChoice={setLight}
          />
        ) : (
          <TextField
            label={known ? 'The light showed, if something else' : 'The light showed'}
            value={light}
            maxLength={200}
            onText={setLight}
          />
        )}
        <Segments
          label="The list of clients names it"
          value={listed}
          options={(['yes', 'no', 'not looked'] as const).map((value) => ({ value, label: value }))}
          onChoice={setListed}
        />
        <p className="text-sm font-semibold text-soft">The app said</p>
        <div className="grid grid-cols-2 gap-1.5">
          {CAME_TO.map((reason) => (
            <Button
              key={reason}
              className="min-h-14 first-letter:uppercase"
              onClick={() => {
                work.attempt({
                  outcome: 'failed',
                  reason,
                  ...(light.trim() === '' ? {} : { light: light.trim() }),
                  ...(listed === 'not looked' ? {} : { listed: listed === 'yes' }),
                });
                onClose();
              }}
            >
              {SEEN_WORDS[reason]}
            </Button>
          ))}
        </div>
      </div>
    </Dialog>
  );
}
