import {
  type Device,
  type JobLookup,
  LOAD_WORDS,
  lengthText,
  moneyText,
  RADIO_WORDS,
  STRATEGY_WORDS,
  type UnitSystem,
} from '@inventario/core';

/** A data sheet as rows of words, in the order one reads a leaflet. Empty text: the record does not say. */
export function sheetRows(
  device: Device,
  known: JobLookup,
  units: UnitSystem,
): { name: string; text: string }[] {
  const { job } = known;
  const length = (mm: number) => lengthText(mm, units);
  const partName = (id: string) => job.catalogue.parts.find((part) => part.id === id)?.name ?? id;
  const yes = (value: boolean | undefined, word = 'yes') => (value === undefined ? '' : value ? word : 'no');
  const deviceName = (id: string) => known.devices.get(id)?.model ?? id;
  return [
    { name: 'Price', text: moneyText(device.price, job.money?.currency) },
    { name: 'Made for', text: `${device.practices.join(', ')}; ${device.volts[0]} to ${device.volts[1]} V` },
    {
      name: 'Goes',
      text: { box: `in the box, ${device.gangs} gang`, fitting: 'at the fitting', surface: 'on the wall' }[
        device.mount
      ],
    },
    {
      name: 'Body',
      text: `${length(device.body.width)} x ${length(device.body.height)}, ${length(device.body.depth)} deep`,
    },
    {
      name: 'Needs',
      text: `${device.needs.neutral ? 'a neutral' : 'no neutral'}; ground ${device.needs.ground}`,
    },
    ...device.channels.map((channel) => ({
      name: `Channel ${channel.id}${channel.name ? `, ${channel.name}` : ''}`,
      text: [
        channel.kind,
        channel.speeds ? `${channel.speeds} speeds` : '',
        ...channel.ratings.map(
          (rating) =>
            `${rating.kinds.map((kind) => LOAD_WORDS[kind]).join(', ')}: ${rating.limit.join(' / ')} ` +
            `${rating.unit}${rating.limit.length > 1 ? ' with 0, 1, 2 sides removed' : ''}`,
        ),
        channel.minWatts ? `at least ${channel.minWatts} W` : '',
        channel.bypassPartId ? `or with ${partName(channel.bypassPartId)}` : '',
        channel.alwaysOnMode ? 'can be held on' : '',
      ]
        .filter(Boolean)
        .join('; '),
    })),
    { name: 'Line and load', text: device.interchangeableLineLoad ? 'interchangeable' : '' },
    { name: 'Side fins', text: yes(device.fins) },
    {
      name: 'From several places',
      text: (device.multiLocation ?? [])
        .map(({ strategy, partnerIds = [] }) => {
          const partners = partnerIds.length > 0 ? ` with ${partnerIds.map(deviceName).join(', ')}` : '';
          return STRATEGY_WORDS[strategy] + partners;
        })
        .join('; '),
    },
    {
      name: 'Radio',
      text: [
        RADIO_WORDS[device.radio],
        device.hubId ? ` through ${known.hubs.get(device.hubId)?.name ?? device.hubId}` : '',
        device.wifiBands ? `, ${device.wifiBands.join(' and ')} GHz` : '',
      ].join(''),
    },
    { name: 'Repeats the mesh', text: yes(device.repeater) },
    { name: 'Assistants', text: device.platforms.join(', ') },
    {
      name: 'Works through',
      text: {
        local: 'the house',
        'maker-cloud': 'the maker’s server',
        both: 'the house and the maker’s server',
        '': '',
      }[device.control ?? ''],
    },
    {
      name: 'Power',
      text:
        device.power === 'battery'
          ? `battery${device.batteryYears ? `, ${device.batteryYears} years` : ''}`
          : device.standbyW
            ? `mains, ${device.standbyW} W standby`
            : (device.power ?? ''),
    },
    {
      name: 'Feel',
      text: [
        device.actuator,
        device.audible === undefined ? '' : device.audible ? 'clicks' : 'silent',
        device.upIsOn ? 'up is on' : '',
      ]
        .filter(Boolean)
        .join(', '),
    },
    { name: 'Its light', text: device.indicator ?? '' },
    { name: 'Comes on at', text: device.onLevel ?? '' },
    { name: 'Microphone', text: yes(device.microphone) },
    { name: 'Senses', text: (device.senses ?? []).join(', ') },
    { name: 'Scenes', text: yes(device.scenes) },
    { name: 'Steers bulbs', text: device.bulbController ? (device.bulbFamilies ?? []).join(', ') : '' },
    {
      name: 'Face',
      text: [
        device.opening && `opening ${device.opening}`,
        device.shade,
        device.faceProud === undefined ? '' : `${length(device.faceProud)} proud`,
        device.ownPlate ? 'its own plate' : '',
      ]
        .filter(Boolean)
        .join(', '),
    },
    { name: 'Colours', text: (device.colours ?? []).join(', ') },
    {
      name: 'In the package',
      text: (device.includes ?? [])
        .map((entry) => `${entry.count ?? 1} x ${partName(entry.partId)}`)
        .join(', '),
    },
  ];
}
