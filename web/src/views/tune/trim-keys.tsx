import { additionParts, type ChannelTask, type SettingTask, trimSearch } from '@inventario/core';
import { instant, newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { Button } from '../../ui/button.js';

/** The search for the lowest steady level: one level after the other, steady or not. */
export function TrimKeys({
  at,
  setting,
  onFound,
}: {
  at: ChannelTask;
  setting: SettingTask;
  onFound: (level: number) => void;
}) {
  const { apply } = useJob();
  const search = trimSearch(at.record?.trim ?? []);
  const seen = (level: number, steady: boolean) =>
    apply(
      additionParts(at, { trim: [{ level, steady, at: instant() }] }, newId),
      `${level} % ${steady ? 'steady' : 'flickers'}`,
    );
  return (
    <div>
      <p className="text-sm font-semibold text-soft">
        {setting.name}
        {setting.value !== null && `: ${setting.value} %`}
      </p>
      {search.state === 'never-steady' && (
        <p>
          It flickers at full level too: the low end is not the cause. Look at the lamps and the bulb type.
        </p>
      )}
      {search.state === 'done' &&
        (setting.value === search.level ? (
          <p className="text-soft">Steady from {search.lowest} % on; two more for safety.</p>
        ) : (
          <div className="flex flex-wrap items-center gap-2">
            <p>
              Steady from {search.lowest} % on. Set the low end to <b>{search.level} %</b>.
            </p>
            <Button onClick={() => onFound(search.level)}>It is set to {search.level} %</Button>
          </div>
        ))}
      {search.state === 'look' && (
        <div className="flex flex-wrap items-center gap-2">
          <p>
            Dim to <b className="text-lg">{search.level} %</b> and look.
            <span className="text-soft">
              {' '}
              {search.looksLeft === 1 ? 'This look tells.' : `At most ${search.looksLeft} looks more.`}
            </span>
          </p>
          <Button onClick={() => seen(search.level, true)}>Steady</Button>
          <Button onClick={() => seen(search.level, false)}>It flickers</Button>
        </div>
      )}
    </div>
  );
}
