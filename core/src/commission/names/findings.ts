import { lastByClock } from '../../job/events.js';
import { folded, type Heard, holdsWords } from './fold.js';
import type { NamesInUse } from './names-in-use.js';
import type { NamedChannel, NameFinding, NameGround } from './vocabulary.js';

/** Kinds of devices, which a new one is called by in most apps. */
const KINDS = 'switch|dimmer|light|lamp|fan|plug|device|outlet';
const KIND_WITH_NUMBER = new RegExp(`^(?:${KINDS})(?: ?\\p{Nd}+)?$`, 'u');

/** Whether it is a name that a device has before anybody gave it one. */
function isDefaultName(name: string, { device, channel }: NamedChannel): boolean {
  return (
    KIND_WITH_NUMBER.test(name) ||
    [device.model, `${device.maker} ${device.model}`, channel.name ?? ''].some(
      (given) => folded(given) === name,
    )
  );
}

/** The reserved word of a platform that a name holds. */
function reservedWord(name: string, reserved: readonly string[] | undefined): string | undefined {
  return reserved?.find((word) => holdsWords(name, folded(word)));
}

/** What any name would meet at a channel, with nobody else's looked at. @param name folded */
export function ownFindings(name: string, at: NamedChannel, ground: NameGround): NameFinding[] {
  const rooms = ground.rooms.get(name);
  return [
    ...(isDefaultName(name, at) ? [finding('default')] : []),
    ...(rooms ? [finding('equals-room', rooms)] : []),
    ...at.platforms.flatMap((platform): NameFinding[] => {
      const word = reservedWord(name, platform.reserved);
      return word === undefined ? [] : [{ code: 'reserved', platform: platform.name, with: [], word }];
    }),
  ];
}

/** What is wrong with the name a channel has, in the order of the codes. */
export function findingsOf(at: NamedChannel, ground: NameGround, inUse: NamesInUse): NameFinding[] {
  const name = at.heard;
  if (!name) return [finding('unnamed')];
  const same = inUse.same(at.id, name.folded);
  const alike = inUse.alike(at.id, name);
  const [byDefault, byItself] = partition(
    ownFindings(name.folded, at, ground),
    ({ code }) => code === 'default',
  );
  return [
    ...byDefault,
    ...(same.length > 0 ? [finding('duplicate', same)] : []),
    ...(alike.length > 0 ? [finding('sounds-alike', alike)] : []),
    ...byItself,
    ...shownOtherwise(at, name),
    ...oldName(at, name, ground),
  ];
}

/** Apps that show another name: an exact one counts once it was found there. */
function shownOtherwise({ pairing, platforms }: NamedChannel, name: Heard): NameFinding[] {
  return platforms.flatMap((platform): NameFinding[] => {
    const shown = pairing?.names?.[platform.name] ?? '';
    const other = folded(shown);
    if (other === '' || other === name.folded) return [];
    const looks = pairing?.reached?.filter((entry) => entry.platform === platform.name) ?? [];
    if (platform.matching === 'exact' && lastByClock(looks)?.outcome !== 'found') return [];
    return [{ code: 'differs', platform: platform.name, with: [], word: shown }];
  });
}

/** The name of the device that was replaced: to be taken over, or still in its hub. */
function oldName(at: NamedChannel, name: Heard, ground: NameGround): NameFinding[] {
  const old = folded(at.position.replaces?.name ?? '');
  if (old === '') return [];
  if (old === name.folded) return at.position.replaces?.removed === false ? [finding('old-still-there')] : [];
  return at.first && !hasOldName(at, old, ground) ? [finding('take-over')] : [];
}

/** Whether a channel of the same place has the name of what was there before. */
export function hasOldName(at: NamedChannel, old: string, ground: NameGround): boolean {
  return ground.channels.some(
    ({ box, position, heard }) =>
      box.id === at.box.id && position.index === at.position.index && heard?.folded === old,
  );
}

const finding = (code: NameFinding['code'], ids: string[] = []): NameFinding => ({
  code,
  platform: null,
  with: ids,
});

function partition<Entry>(entries: readonly Entry[], test: (entry: Entry) => boolean): [Entry[], Entry[]] {
  return [entries.filter(test), entries.filter((entry) => !test(entry))];
}
