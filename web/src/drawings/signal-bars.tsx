/** Signal as a staircase of four, filled as far as it goes. */
export function SignalBars({ bars }: { bars: number }) {
  return (
    <svg aria-hidden="true" width="28" height="18" viewBox="0 0 28 18" className="shrink-0">
      {[1, 2, 3, 4].map((bar) => (
        <rect
          key={bar}
          x={(bar - 1) * 7 + 1}
          y={17 - bar * 4}
          width="5"
          height={bar * 4}
          fill={bar <= bars ? 'currentColor' : 'none'}
          stroke="currentColor"
          strokeWidth="1.2"
        />
      ))}
    </svg>
  );
}
