import { type Device, deviceName } from '@inventario/core';
import { useMemo, useState } from 'react';
import { useJob } from '../../data/job-context.js';
import { useUnits } from '../../data/preferences.js';
import { classes } from '../../ui/classes.js';
import { DataTable, type TableColumn } from '../../ui/data-table.js';
import { WideDialog } from '../../ui/dialog.js';
import { Toggle } from '../../ui/toggle.js';
import { sheetRows } from './sheet-rows.js';

/** What each device says of one thing. */
interface Compared {
  name: string;
  texts: string[];
  differs: boolean;
}

/** Two to four data sheets side by side; where they differ stands out. */
export function CompareDialog({ devices, onClose }: { devices: readonly Device[]; onClose: () => void }) {
  const { job, known } = useJob();
  const units = useUnits(job);
  const [onlyDifferent, setOnlyDifferent] = useState(true);
  const sheets = devices.map(
    (device) => new Map(sheetRows(device, known, units).map((row) => [row.name, row.text])),
  );
  const rows = [...new Set(sheets.flatMap((sheet) => [...sheet.keys()]))].map((name): Compared => {
    const texts = sheets.map((sheet) => sheet.get(name) ?? '');
    return { name, texts, differs: new Set(texts).size > 1 };
  });
  const shown = rows.filter(
    ({ texts, differs }) => texts.some((text) => text !== '') && (!onlyDifferent || differs),
  );
  const columns = useMemo<TableColumn<Compared>[]>(
    () => [
      {
        id: 'name',
        head: 'What',
        names: true,
        hideHead: true,
        className: 'w-36 text-soft',
        cell: ({ name }) => name,
      },
      ...devices.map((device, at) => ({
        id: device.id,
        head: deviceName(device),
        className: 'align-top',
        cell: ({ texts, differs }: Compared) => (
          <span className={classes(differs && 'font-semibold')}>
            {texts[at] || <span className="font-normal text-soft">not said</span>}
          </span>
        ),
      })),
    ],
    [devices],
  );
  return (
    <WideDialog title={`${devices.length} devices side by side`} open onClose={onClose}>
      <Toggle label="Only where they differ" on={onlyDifferent} onToggle={setOnlyDifferent} />
      <div className="min-w-0 overflow-x-auto">
        <div className="min-w-xl text-sm">
          <DataTable label="Comparison" rows={shown} columns={columns} idOf={({ name }) => name} />
        </div>
      </div>
    </WideDialog>
  );
}
