import type { AdviceReason } from '../../advice/room-advice.js';
import type { Trial } from '../../advice/trial.js';
import type { Outage } from '../../homeplan/outages.js';
import type { RequirementCost } from '../../homeplan/requirements.js';
import type { School } from '../../homeplan/vocabulary.js';
import { capital } from '../../units/capital.js';

/** The schools of buying for a house, as one would say them. */
export const SCHOOL_WORDS: Record<School, { name: string; says: string }> = {
  'lowest-cost': { name: 'Least cost', says: 'Whatever serves most places for the least money.' },
  'no-hub': { name: 'No hub', says: 'Nothing that works through a hub, not even one that is there.' },
  'one-mesh-hub': { name: 'One mesh', says: 'Every radio on one mesh with one hub; the router is spared.' },
  'makers-hub': { name: 'One maker’s hub', says: 'Every radio the maker’s own, through the maker’s hub.' },
  'fewest-families': { name: 'Fewest makers', says: 'As few families of devices as serve as many places.' },
};

/** `Least cost, fewest makers`: strategies that come to the same plan. */
export function schoolsText(schools: readonly School[]): string {
  const names = schools.map((school) => SCHOOL_WORDS[school].name);
  return capital(names.map((name) => `${name.charAt(0).toLowerCase()}${name.slice(1)}`).join(', '));
}

export const OUTAGE_WORDS: Record<Outage, string> = {
  internet: 'Without the internet',
  server: 'Without the maker’s server',
  hub: 'Without the hub',
  router: 'Without the router',
};

/** What a rule stops a place by, in a few words. */
export const RULE_WORDS: Record<string, string> = {
  hazard: 'what stops work at the box',
  practice: 'made for another practice',
  voltage: 'the voltage',
  neutral: 'no proved neutral of this circuit',
  ground: 'the ground',
  'line-load': 'line and load not labelled yet, or not here',
  'load-kind': 'the kind of load',
  rating: 'the rating',
  'minimum-load': 'too small a load',
  dimmable: 'not known to be dimmable',
  channels: 'more loads than channels',
  speeds: 'the fan’s speeds',
  'multi-location': 'the other places of its group',
  gangs: 'too few gangs',
  body: 'the size of the body',
  depth: 'the depth of the box',
  fill: 'the fill of the box',
  packing: 'the room in the box',
  plate: 'the plate beside it',
  radio: 'the radio',
  signal: 'the signal',
  hub: 'the hub',
  platform: 'an assistant that is a must',
  router: 'the router’s limit',
  need: 'what is asked for here',
  sensor: 'a sense asked for here',
  'socket-rating': 'a socket’s full rating',
  'bulb-family': 'the family of the bulbs',
  ban: 'ruled out for this job',
  pin: 'pinned to a device that cannot go here',
};

/** `"neutral, depth"` as a person would say it. */
export function whyWords(why: string): string {
  return why
    .split(', ')
    .map((rule) => RULE_WORDS[rule] ?? rule)
    .join('; ');
}

export function requirementWords({ kind, what }: Pick<RequirementCost, 'kind' | 'what'>): string {
  switch (kind) {
    case 'platform':
      return `${what} as a must`;
    case 'silent':
      return 'Nothing that clicks';
    case 'colour':
      return `Everything in ${what}`;
    case 'local':
      return 'Nothing that needs a maker’s server';
    case 'no-microphone':
      return 'No microphone anywhere';
  }
}

export const ADVICE_WORDS: Record<AdviceReason, string> = {
  'nobody-asks': 'Nothing is asked for here.',
  'reckoned-elsewhere': 'What is worked from here is reckoned with the room its lamps hang in.',
  'no-lamps': 'What is worked here is no lamp.',
  colour: 'Light in colours is a matter of bulbs.',
  'constant-power': 'The bulbs are to stay fed.',
  'smart-bulbs-there': 'The bulbs here are smart already.',
  'many-lamps': 'One switch works many lamps.',
  'cheaper-switch': 'A switch is cheaper.',
  'cheaper-bulbs': 'Bulbs are cheaper.',
  guests: 'A wireless control at each switch keeps guests able to work them.',
  'nothing-fits': 'Nothing fits as it is.',
};

export const TRIAL_WORDS: Record<Trial['tests'][number]['what'], string> = {
  depth: 'of the depth',
  fill: 'of the counted volume',
  packing: 'of the room by the estimate',
  signal: 'of the way to too weak a signal',
};
