import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip } from 'chart.js';
import { Bar } from 'react-chartjs-2';
import { usePreferences } from '../data/preferences.js';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);
Chart.defaults.font.size = 14;

export interface Series {
  label: string;
  values: number[];
}

const FONT = 'Atkinson Hyperlegible Next Variable';

/** Tones of ink, not colours: colour speaks of conductors and of danger only. */
const TONES = ['--strong', '--soft', '--rule', '--well'];

/**
 * Sums standing side by side, each made of the same parts. Its figures stand in a table near it, which is
 * what a reader without eyes hears.
 */
export function StackedBars({
  title,
  labels,
  series,
  text,
}: {
  title: string;
  labels: string[];
  series: Series[];
  /** A value as it is shown. */
  text: (value: number) => string;
}) {
  const { theme } = usePreferences();
  const tone = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
  return (
    <figure aria-label={title} className="h-56">
      <Bar
        key={theme}
        role="img"
        aria-label={title}
        data={{
          labels,
          datasets: series.map((entry, at) => ({
            label: entry.label,
            data: entry.values,
            backgroundColor: tone(TONES[at % TONES.length] ?? '--strong'),
            borderColor: tone('--ink'),
            borderWidth: 1,
          })),
        }}
        options={{
          animation: false,
          maintainAspectRatio: false,
          responsive: true,
          scales: {
            x: {
              stacked: true,
              grid: { display: false },
              ticks: { color: tone('--ink'), font: { family: FONT, size: 13 } },
            },
            y: {
              stacked: true,
              grid: { color: tone('--rule') },
              ticks: {
                color: tone('--soft'),
                maxTicksLimit: 5,
                font: { family: FONT, size: 13 },
                callback: (value) => text(Number(value)),
              },
            },
          },
          plugins: {
            tooltip: { callbacks: { label: (item) => `${item.dataset.label}: ${text(Number(item.raw))}` } },
          },
        }}
      />
    </figure>
  );
}

/** The same tones with their names. */
export function BarsLegend({ names }: { names: readonly string[] }) {
  return (
    <ul className="flex flex-wrap gap-x-4 gap-y-1 text-sm">
      {names.map((name, at) => (
        <li key={name} className="flex items-center gap-1.5">
          <span
            aria-hidden
            className="size-3.5 border border-ink"
            style={{ background: `var(${TONES[at % TONES.length]})` }}
          />
          {name}
        </li>
      ))}
    </ul>
  );
}
