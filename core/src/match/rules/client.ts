import { figuresInUse } from '../../job/figures.js';
import type { Device } from '../../job/schema/catalogue.js';
import type { Strategy } from '../../job/schema/primitives.js';
import { assignChannels } from '../../loads/channels.js';
import type { BriefFacts, PlaceFacts } from '../place.js';
import { NO_REASONS, type Reason } from '../reason.js';

export function platformRule(place: BriefFacts, device: Device): readonly Reason[] {
  // A place may want a sensor and no connection.
  if (place.need.connected === false) return NO_REASONS;
  return (place.known.job.brief?.platforms ?? [])
    .filter((platform) => !device.platforms.includes(platform.name))
    .map(({ name, want }) => ({
      rule: 'platform',
      outcome: want === 'must' ? 'block' : 'warn',
      code: want === 'must' ? 'platform.must' : 'platform.nice',
      facts: { platform: name, offers: device.platforms },
    }));
}

const feel = (code: string, facts: Reason['facts']): Reason => ({
  rule: 'feel',
  outcome: 'warn',
  code: `feel.${code}`,
  facts,
});

/**
 * How it is to live with, against what the client likes. Preferences: they warn, and what a record does not
 * say is not held against it.
 */
export function feelRule(place: BriefFacts, device: Device): readonly Reason[] {
  const wanted = place.known.job.brief?.feel;
  if (!wanted || device.mount === 'fitting') return NO_REASONS;
  const reasons: Reason[] = [];
  const { actuators } = wanted;
  if (actuators?.length && device.actuator && !actuators.includes(device.actuator))
    reasons.push(feel('actuator', { actuator: device.actuator, wanted: actuators }));
  if (wanted.silent && device.audible) reasons.push(feel('audible', {}));
  if (wanted.upIsOn && device.upIsOn === false) reasons.push(feel('up-is-on', {}));
  const { indicator } = wanted;
  if (
    device.indicator &&
    ((indicator === 'none' && device.indicator !== 'none') ||
      (indicator === 'dimmable' && device.indicator !== 'dimmable'))
  )
    reasons.push(feel('indicator', { indicator: device.indicator, wanted: indicator }));
  if (wanted.onLevel && device.onLevel && device.onLevel !== wanted.onLevel)
    reasons.push(feel('on-level', { onLevel: device.onLevel, wanted: wanted.onLevel }));
  if (wanted.microphone === false && device.microphone) reasons.push(feel('microphone', {}));
  return reasons;
}

export function colourRule(place: BriefFacts, device: Device): readonly Reason[] {
  const colour = place.known.job.brief?.colour;
  if (!colour || !device.colours?.length || device.mount === 'fitting' || device.colours.includes(colour))
    return NO_REASONS;
  return [{ rule: 'colour', outcome: 'warn', code: 'colour.other', facts: { colour, made: device.colours } }];
}

const need = (code: string, outcome: Reason['outcome'] = 'block'): Reason => ({
  rule: 'need',
  outcome,
  code: `need.${code}`,
  facts: {},
});

/**
 * What the place is asked for and the device does not offer. A partner answers for what stands at its own
 * place only.
 */
export function needRule(
  place: PlaceFacts,
  device: Device,
  strategy: Strategy,
  main: boolean,
): readonly Reason[] {
  const wanted = place.need;
  const reasons: Reason[] = [];
  if (wanted.scenes && !device.scenes) reasons.push(need('scenes'));
  if (!main) return reasons;
  const steersBulbs = strategy === 'bulb-controller' && device.bulbController === true;
  if ((wanted.dim === 'must' || wanted.dim === 'nice') && !steersBulbs && !dims(place, device))
    reasons.push(wanted.dim === 'must' ? need('dim') : need('dim-nice', 'warn'));
  if (wanted.fanSpeed && !device.channels.some((channel) => channel.kind === 'fan-speed'))
    reasons.push(need('fan-speed'));
  const heldOn = device.channels.some((channel) => channel.alwaysOnMode && channel.kind !== 'dimmer');
  if (wanted.constantPower && !steersBulbs && !heldOn) reasons.push(need('constant-power'));
  return reasons;
}

/** Whether a dimmer channel would feed a lamp here; with nothing recorded, whether the device has one. */
function dims(place: PlaceFacts, device: Device): boolean {
  const dimmers = device.channels.filter((channel) => channel.kind === 'dimmer');
  if (dimmers.length === 0 || dimmers.length === device.channels.length || place.loads.length === 0)
    return dimmers.length > 0;
  return assignChannels(device, place.loads, figuresInUse(place.known.job).margin).fed.some(
    ({ channel }) => channel.kind === 'dimmer',
  );
}

export function sensorRule(place: PlaceFacts, device: Device): readonly Reason[] {
  const missing = (place.need.senses ?? []).filter((sense) => !device.senses?.includes(sense));
  if (missing.length === 0) return NO_REASONS;
  return [
    {
      rule: 'sensor',
      outcome: 'block',
      code: 'sensor.missing',
      facts: { missing, senses: device.senses ?? [] },
    },
  ];
}

/** A wall control without wires where a wired one may be called for: a matter for the local code. */
export function batteryOnlyRule(device: Device): readonly Reason[] {
  if (device.power !== 'battery' || device.terminals.length > 0) return NO_REASONS;
  return [{ rule: 'battery-only', outcome: 'warn', code: 'battery-only.local-code', facts: {} }];
}
