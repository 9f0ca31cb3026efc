import type { KnownIds } from './known-ids.js';

/** What the catalogue names of itself. */
export function checkCatalogue(known: KnownIds): void {
  known.job.catalogue.devices.forEach((device, index) => {
    const path = ['catalogue', 'devices', index];
    known.must(known.hubs, device.hubId, [...path, 'hubId'], 'hub');
    known.mustAll(known.platforms, device.platforms, [...path, 'platforms'], 'platform');
    device.multiLocation?.forEach((entry, which) => {
      known.mustAll(
        known.devices,
        entry.partnerIds,
        [...path, 'multiLocation', which, 'partnerIds'],
        'device',
      );
    });
    const terminals = new Set<string>();
    device.terminals.forEach((terminal, which) => {
      if (terminals.has(terminal.id))
        known.error(
          [...path, 'terminals', which, 'id'],
          `uses the terminal id "${terminal.id}" a second time`,
        );
      terminals.add(terminal.id);
    });
    const channels = new Set<number>();
    device.channels.forEach((channel, which) => {
      if (channels.has(channel.id))
        known.error([...path, 'channels', which, 'id'], `uses the channel id ${channel.id} a second time`);
      channels.add(channel.id);
      known.must(known.parts, channel.bypassPartId, [...path, 'channels', which, 'bypassPartId'], 'part');
    });
    device.terminals.forEach((terminal, which) => {
      if (terminal.channel !== undefined && !channels.has(terminal.channel))
        known.error(
          [...path, 'terminals', which, 'channel'],
          `names the channel ${terminal.channel}, which the device does not have`,
        );
    });
    device.includes?.forEach((entry, which) => {
      known.must(known.parts, entry.partId, [...path, 'includes', which, 'partId'], 'part');
    });
  });
  known.job.catalogue.hubs.forEach((hub, index) => {
    known.mustAll(known.platforms, hub.platforms, ['catalogue', 'hubs', index, 'platforms'], 'platform');
  });
}
