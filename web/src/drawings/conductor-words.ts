import { type Box, conductorTitle, type Job, type Label, type Words, wireSizeText } from '@inventario/core';
import type { FanColumn, FanLayout } from './fan-layout.js';
import type { SaidRole } from './fan-parts.js';
import { CERTAINTY_WORDS } from './role-mark.js';

/**
 * The drawing of one conductor in words: `Black, feed A, first from left, 14 AWG, on terminal a of position
 * 1: line`.
 */
export function inWords(
  column: FanColumn,
  label: Label | undefined,
  said: SaidRole | undefined,
  at: { box: Box; job: Job; words: Words; layout: FanLayout },
): string {
  const { conductor } = column;
  const ends = endWords(column, at.layout);
  const where = ends.length > 0 ? ends.join(' and ') : 'passes through';
  const title = conductorTitle(at.box, conductor.id, at.job);
  const role = column.made ? 'made here' : roleWords(label, said, at.words);
  return `${title}, ${wireSizeText(conductor.size)}, ${where}: ${role}`;
}

/** Where each end of a conductor is. */
export function endWords(column: FanColumn, layout: FanLayout): string[] {
  return column.ends.map((end) => {
    const joint = layout.joints.find((entry) => entry.jointId === end.joint);
    if (joint) return `in joint ${joint.number}`;
    if (end.position !== undefined) return `on terminal ${end.terminal} of position ${end.position}`;
    return end.boxScrew ? 'on the box' : 'capped';
  });
}

/** What it is, and how surely: the installer's word first, then the readings, then its looks. */
export function roleWords(label: Label | undefined, said: SaidRole | undefined, words: Words): string {
  const role = (one: { role: SaidRole['role']; traveler?: number | undefined }) =>
    `${words.roles[one.role]}${one.traveler ? ` ${one.traveler}` : ''}`;
  if (label && label.role !== 'unknown') {
    const eye = label.byEye ? ', by eye' : '';
    const against =
      said && said.grade !== 'guess' && said.role !== label.role
        ? `, against the readings, which say ${words.roles[said.role]}`
        : '';
    return `${role(label)}${eye}${against}`;
  }
  if (!said || said.role === 'unknown') return words.roles.unknown;
  return said.grade === 'guess'
    ? `${words.roles.unknown}, ${role(said)} by its looks`
    : `${role(said)}, ${CERTAINTY_WORDS[said.grade]}`;
}
