import { afterEach, expect } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { renderJob } from './render-job.js';

/*
 * What a hand does on a screen, and what it finds there, by the names a person knows.
 */

let close = () => {};
afterEach(() => {
  cleanup();
  close();
  close = () => {};
});

/** A view on a job of its own; the session is closed with the test. */
export async function shown(...scenery: Parameters<typeof renderJob>) {
  const scene = await renderJob(...scenery);
  close = scene.close;
  return scene;
}

export function press(name: string | RegExp, at: HTMLElement = document.body): void {
  fireEvent.click(within(at).getAllByRole('button', { name })[0] as HTMLElement);
}

export function type(label: string | RegExp, value: string, at: HTMLElement = document.body): void {
  fireEvent.change(within(at).getByLabelText(label), { target: { value } });
}

/** One of a few options side by side. */
export function pickRadio(
  group: string | RegExp,
  name: string | RegExp,
  at: HTMLElement = document.body,
): void {
  const radios = within(at).getByRole('radiogroup', { name: group });
  fireEvent.click(within(radios).getByRole('radio', { name }));
}

/** One of a list that opens below its button. */
export async function pickListed(label: RegExp, name: string | RegExp, at: HTMLElement = document.body) {
  fireEvent.click(within(at).getByRole('button', { name: label }));
  fireEvent.click(await screen.findByRole('option', { name }));
  await waitFor(() => expect(screen.queryByRole('listbox')).toBeNull());
}

/** A list of several stays open until it is closed. */
export async function closeList() {
  fireEvent.keyDown(screen.getByRole('listbox'), { key: 'Escape' });
  await waitFor(() => expect(screen.queryByRole('listbox')).toBeNull());
}

export const dialog = () => screen.findByRole('dialog');
