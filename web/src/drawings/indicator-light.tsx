import { type Light, lightSeconds, lightWords } from '@inventario/core';
import { useId, useSyncExternalStore } from 'react';

/** The light's own colours: they are what is to be recognised on the device. */
const COLOURS: Readonly<Record<Light['colours'][number], string>> = {
  white: '#ffffff',
  amber: '#ffb000',
  green: '#21c45d',
  red: '#e5322d',
  blue: '#2f7bff',
  purple: '#a24bff',
};
const DARK = '#2a2f36';

/**
 * What the device's light is to show, as it shows it: on a dark face, in its colours and its rhythm. Where
 * motion is not wanted its colours stand side by side; the words below say the rest.
 */
export function IndicatorLight({ light, size = 72 }: { light: Light; size?: number }) {
  const still = useSyncExternalStore(onMotion, wantsNoMotion);
  const id = useId();
  const shown = light.colours.map((colour) => COLOURS[colour]);
  const frames = framesOf(light);
  const seconds = lightSeconds(light);
  return (
    <svg viewBox="0 0 64 64" width={size} height={size} role="img" aria-labelledby={id} className="shrink-0">
      <title id={id}>{`The light: ${lightWords(light)}`}</title>
      <rect x="2" y="2" width="60" height="60" rx="9" fill="#15181d" stroke="#8a929c" strokeWidth="1.5" />
      {still || seconds === null ? (
        shown.map((fill, at) => (
          <circle key={fill} cx={32 + (at - (shown.length - 1) / 2) * 20} cy="32" r="8.5" fill={fill} />
        ))
      ) : (
        <circle cx="32" cy="32" r="12" fill={frames[0] ?? DARK}>
          <animate
            attributeName="fill"
            values={[...frames, frames[0]].join(';')}
            dur={`${seconds * Math.max(1, light.colours.length)}s`}
            calcMode={light.rhythm === 'breathing' ? 'linear' : 'discrete'}
            repeatCount="indefinite"
          />
        </circle>
      )}
    </svg>
  );
}

/** The colours over one round: one colour goes dark between, several take turns. */
function framesOf({ colours, rhythm }: Light): string[] {
  const shown = colours.map((colour) => COLOURS[colour]);
  if (rhythm === 'twice') return shown.flatMap((colour) => [colour, DARK, colour, DARK, DARK, DARK]);
  return shown.length > 1 ? shown : [shown[0] ?? DARK, DARK];
}

const QUERY = '(prefers-reduced-motion: reduce)';
const wantsNoMotion = () => matchMedia(QUERY).matches;
function onMotion(changed: () => void) {
  const query = matchMedia(QUERY);
  query.addEventListener('change', changed);
  return () => query.removeEventListener('change', changed);
}
