import { Chart, Filler, LinearScale, LineElement, PointElement, ScatterController, Tooltip } from 'chart.js';
import { Scatter } from 'react-chartjs-2';
import { usePreferences } from '../../data/preferences.js';

Chart.register(ScatterController, PointElement, LineElement, LinearScale, Tooltip, Filler);

const FONT = 'Atkinson Hyperlegible Next Variable';

/** One row of marks, or a line; told apart by shape and tone, never by colour. */
export interface TimeSeries {
  label: string;
  points: { x: number; y: number }[];
  mark: 'on' | 'off' | 'other' | 'trouble' | 'line';
}

/** From so many marks on they are drawn small. */
const MANY = 80;
const SMALL = 4;

const SHAPES = { on: 'circle', off: 'rect', other: 'triangle', trouble: 'crossRot', line: 'circle' } as const;

/**
 * Times over a day or a year. What it shows stands in words near it, for a reader without eyes.
 */
export function TimeChart({
  title,
  series,
  x,
  y,
  className,
}: {
  title: string;
  series: TimeSeries[];
  x: Axis;
  y: Axis;
  className: string;
}) {
  const { theme } = usePreferences();
  const tone = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
  const ink = tone('--ink');
  // Many marks are drawn small, or none could be told from the next.
  const size =
    series.reduce((sum, { mark, points }) => sum + (mark === 'line' ? 0 : points.length), 0) > MANY ? 2 : 6;
  return (
    <figure aria-label={title} className={className}>
      <Scatter
        key={theme}
        role="img"
        aria-label={title}
        data={{
          datasets: series.map(({ label, points, mark }) => ({
            label,
            data: points,
            showLine: mark === 'line',
            pointRadius: mark === 'line' ? 0 : mark === 'trouble' ? size * 1.5 : size,
            pointStyle: SHAPES[mark],
            borderColor: mark === 'trouble' ? tone('--stop') : mark === 'line' ? tone('--soft') : ink,
            backgroundColor: mark === 'on' ? tone('--sheet') : ink,
            borderWidth: size < SMALL ? 1 : mark === 'trouble' ? 3 : 2,
          })),
        }}
        options={{
          animation: false,
          maintainAspectRatio: false,
          responsive: true,
          scales: { x: axis(x, tone), y: axis(y, tone) },
          plugins: {
            tooltip: {
              callbacks: {
                label: ({ dataset, parsed }) =>
                  `${dataset.label}: ${x.text(parsed.x ?? 0)}, ${y.text(parsed.y ?? 0)}`,
              },
            },
          },
        }}
      />
    </figure>
  );
}

export interface Axis {
  min: number;
  max: number;
  step: number;
  /** The other way round: from top to bottom. */
  reverse?: boolean;
  text: (value: number) => string;
}

function axis({ min, max, step, reverse, text }: Axis, tone: (name: string) => string) {
  return {
    min,
    max,
    reverse: reverse ?? false,
    grid: { color: tone('--rule') },
    ticks: {
      stepSize: step,
      autoSkip: false,
      color: tone('--ink'),
      font: { family: FONT, size: 13 },
      callback: (value: string | number) => text(Number(value)),
    },
  };
}
