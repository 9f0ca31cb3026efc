import { type Device, deviceName } from '@inventario/core';
import { useState } from 'react';
import { useJob } from '../../data/job-context.js';
import { useUnits } from '../../data/preferences.js';
import { classes } from '../../ui/classes.js';
import { WideDialog } from '../../ui/dialog.js';
import { Toggle } from '../../ui/toggle.js';
import { sheetRows } from './sheet-rows.js';

/** Two to four data sheets side by side; where they differ stands out. */
export function CompareDialog({ devices, onClose }: { devices: readonly Device[]; onClose: () => void }) {
  const { job, known } = useJob();
  const units = useUnits(job);
  const [onlyDifferent, setOnlyDifferent] = useState(true);
  const sheets = devices.map(
    (device) => new Map(sheetRows(device, known, units).map((row) => [row.name, row.text])),
  );
  const names = [...new Set(sheets.flatMap((sheet) => [...sheet.keys()]))];
  const differs = (name: string) => new Set(sheets.map((sheet) => sheet.get(name) ?? '')).size > 1;
  const shown = names.filter(
    (name) => sheets.some((sheet) => sheet.get(name)) && (!onlyDifferent || differs(name)),
  );
  return (
    <WideDialog title={`${devices.length} devices side by side`} open onClose={onClose}>
      <Toggle label="Only where they differ" on={onlyDifferent} onToggle={setOnlyDifferent} />
      <div className="overflow-x-auto">
        <table className="w-full min-w-xl border-collapse text-sm">
          <thead>
            <tr>
              <td />
              {devices.map((device) => (
                <th key={device.id} scope="col" className="p-2 text-left">
                  {deviceName(device)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.map((name) => (
              <tr key={name} className="border-t border-rule align-top">
                <th scope="row" className="w-36 p-2 text-left font-normal text-soft">
                  {name}
                </th>
                {sheets.map((sheet, at) => (
                  <td key={devices[at]?.id} className={classes('p-2', differs(name) && 'font-semibold')}>
                    {sheet.get(name) || <span className="text-soft">not said</span>}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </WideDialog>
  );
}
