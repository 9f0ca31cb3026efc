import type { Device } from '@inventario/core';

/** The steps of pairing as text; what another program wrote otherwise is left alone. */
export function pairingSteps(device: Pick<Device, 'pairing'>): string[] {
  return (device.pairing?.steps ?? []).filter((step): step is string => typeof step === 'string');
}

/** A setting of a device that is worth writing down: its name, and what it can be. */
export interface DeviceSetting {
  name: string;
  values: string;
}

export function deviceSettings(device: Pick<Device, 'settings'>): DeviceSetting[] {
  return (device.settings ?? []).flatMap((entry) => {
    const { name, values } = (entry ?? {}) as { name?: unknown; values?: unknown };
    if (typeof name !== 'string') return [];
    return [{ name, values: Array.isArray(values) ? values.join(', ') : '' }];
  });
}
