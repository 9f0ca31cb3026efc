/** Why an attempt failed, in words, and what to do about it. Keyed by the reason the site reports. */
export const FAILURE_TEXT: Record<string, string> = {
  'wrong-band':
    'The phone is on the 5 GHz network and the device hears 2.4 GHz only. Put the phone on 2.4 GHz, then try again.',
  'weak-signal':
    'The signal at the box is too weak to join. Bring the router or a repeater nearer, or pair it on the bench first.',
  'not-in-pairing-mode':
    'The device is not in pairing mode. Hold its button until the indicator blinks, then try again.',
  'router-full': 'The router takes no more clients.',
  'no-hub': 'The hub it works through is not set up.',
  'no-power': 'The device has no power: its breaker is off.',
  unreachable: 'The site did not answer. Check that it is running and try again.',
};
