import type { At } from '@inventario/core';
import { columnOfEnd, type FanColumn, type FanLayout } from './fan-layout.js';

export const CABLE = 44;
export const STRANDS = 58;
export const MARKS = 42;
/** From joint to joint; as far as a thumb needs it where joints are touched. */
export const BUS = 30;
const TOUCHED = 44;
export const DEVICE = 54;
/** The least a conductor may be wide to be touched. */
const NARROWEST = 44;
const WIDEST = 60;

/** Where everything of a fan stands, px. */
export class FanMetrics {
  readonly column: number;
  readonly busTop = CABLE + STRANDS + MARKS;
  readonly deviceTop: number;
  private readonly bus: number;
  readonly width: number;
  readonly height: number;

  /**
   * @param room what there is for it, px; null where nobody knows
   * @param touched its joints and terminals are touched, not only looked at
   */
  constructor(
    readonly layout: FanLayout,
    room: number | null,
    touched = false,
  ) {
    this.bus = touched ? TOUCHED : BUS;
    this.column = Math.max(NARROWEST, Math.min(WIDEST, Math.floor((room ?? WIDEST) / layout.width)));
    this.deviceTop = this.busTop + 14 + Math.max(1, layout.joints.length) * this.bus;
    this.width = layout.width * this.column;
    this.height = this.deviceTop + layout.devices.length * DEVICE + 6;
  }

  centre(column: number): number {
    return column * this.column + this.column / 2;
  }

  jointY(row: number): number {
    return this.busTop + 14 + row * this.bus;
  }

  screwY(row: number): number {
    return this.deviceTop + row * DEVICE + 8;
  }

  /** Where an end of a conductor is. */
  endAt(column: FanColumn, which: number): { x: number; y: number } {
    const end = column.ends[which];
    return { x: this.centre(columnOfEnd(column, which)), y: end ? this.yOf(end) : this.busTop };
  }

  private yOf(end: At): number {
    const joint = this.layout.joints.find(({ jointId }) => jointId === end.joint);
    if (joint) return this.jointY(joint.row);
    const device = this.layout.devices.find(({ position }) => position === end.position);
    return device ? this.screwY(device.row) : this.busTop + 16;
  }

  /** Where a conductor leaves its sheath: drawn together at the cable's middle, as they do. */
  sheath(column: number): number {
    const group = this.layout.groups.find(({ from, to }) => column >= from && column <= to);
    if (!group) return this.centre(column);
    const middle = (this.centre(group.from) + this.centre(group.to)) / 2;
    return middle + (this.centre(column) - middle) * 0.35;
  }
}
