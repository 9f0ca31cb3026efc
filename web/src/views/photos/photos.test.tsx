import '@testing-library/jest-dom/jest-globals';
import type { Job } from '@inventario/core';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { press, shown } from '../../test-support/by-hand.js';
import { exampleJob } from '../../test-support/example-job.js';
import { PhotosView } from './photos.js';
import { shrink } from './shrink.js';

const before = {
  createImageBitmap: globalThis.createImageBitmap,
  toBlob: HTMLCanvasElement.prototype.toBlob,
  make: URL.createObjectURL,
};

/** What the browser's camera and canvas do: a picture of a size, or none. */
function camera(size: { width: number; height: number } | null) {
  globalThis.createImageBitmap = (async () => {
    if (!size) throw new Error('no picture');
    return { ...size, close() {} };
  }) as unknown as typeof createImageBitmap;
  HTMLCanvasElement.prototype.toBlob = function (done) {
    done(new Blob([`${this.width}x${this.height}`], { type: 'image/jpeg' }));
  };
}
beforeEach(() => {
  URL.createObjectURL = () => 'blob:kept';
});
afterEach(() => {
  globalThis.createImageBitmap = before.createImageBitmap;
  HTMLCanvasElement.prototype.toBlob = before.toBlob;
  URL.createObjectURL = before.make;
});

const file = new File(['x'], 'box.jpg', { type: 'image/jpeg' });
const take = () => fireEvent.change(screen.getByLabelText('Photograph'), { target: { files: [file] } });
const photos = (job: Job) => {
  const id = String(job.boxes[0]?.id);
  return shown(job, <PhotosView />, `/box/${id}/photos`, '/box/:boxId/photos');
};

describe('a photograph made smaller', () => {
  test.each([
    [
      { width: 4000, height: 3000 },
      { width: 2000, height: 1500 },
    ],
    [
      { width: 1500, height: 6000 },
      { width: 500, height: 2000 },
    ],
    [
      { width: 800, height: 600 },
      { width: 800, height: 600 },
    ],
  ])('%j becomes %j', async (from, to) => {
    camera(from);
    expect(await shrink(file)).toMatchObject(to);
  });

  test('what is no picture is refused in words', async () => {
    camera(null);
    await expect(shrink(file)).rejects.toThrow('it is not a JPEG, PNG or WebP picture.');
  });

  test('a browser that cannot write it says so', async () => {
    camera({ width: 10, height: 10 });
    HTMLCanvasElement.prototype.toBlob = (done) => done(null);
    await expect(shrink(file)).rejects.toThrow('cannot write it');
  });
});

describe('photographs of a box', () => {
  test('none yet says when to take them', async () => {
    await photos(exampleJob('pantry'));
    expect(screen.getByText('No photographs yet')).toBeInTheDocument();
    expect(screen.getByText(/Before anything is touched/)).toBeInTheDocument();
  });

  test('taken, it is in the record with its size and stage, and shown from this device', async () => {
    camera({ width: 1000, height: 500 });
    const { job: now } = await photos(exampleJob('pantry'));
    take();
    await waitFor(() => expect(now().photos).toHaveLength(1));
    expect(now().photos[0]).toMatchObject({ stage: 'before', width: 1000, height: 500, pins: [] });
    const list = await screen.findByRole('region', { name: 'before' });
    expect(within(list).getByRole('button')).toHaveAttribute('aria-pressed', 'true');
  });

  test('what is no picture is not taken, and said with its name', async () => {
    camera(null);
    const { job: now } = await photos(exampleJob('pantry'));
    take();
    expect(await screen.findByRole('alert')).toHaveTextContent('“box.jpg” was not taken: it is not a JPEG');
    expect(now().photos).toEqual([]);
  });

  test('a pin names a conductor: one a conductor, from the keyboard in the middle', async () => {
    const job = exampleJob('pantry');
    job.photos = [
      { id: 'p1', boxId: String(job.boxes[0]?.id), stage: 'after', width: 100, height: 100, pins: [] },
    ] as unknown as Job['photos'];
    const { job: now } = await photos(job);
    expect(screen.getByText('Touch a photograph to name conductors in it.')).toBeInTheDocument();
    const list = screen.getByRole('region', { name: 'after' });
    fireEvent.click(within(list).getByRole('button'));
    const place = await screen.findByRole('button', { name: 'Set the pin where you touch the photograph' });
    place.getBoundingClientRect = () => ({ left: 10, top: 20, width: 200, height: 100 }) as DOMRect;
    fireEvent.click(place, { detail: 1, clientX: 60, clientY: 95 });
    expect(now().photos[0]?.pins).toMatchObject([{ x: 0.25, y: 0.75 }]);
    // Set anew it moves; a touch beside the picture is at its edge.
    fireEvent.click(place, { detail: 1, clientX: 900, clientY: 0 });
    expect(now().photos[0]?.pins).toMatchObject([{ x: 1, y: 0 }]);
    fireEvent.click(place, { detail: 0 });
    expect(now().photos[0]?.pins).toMatchObject([{ x: 0.5, y: 0.5 }]);
    const pins = screen.getByRole('region', { name: 'Pins' });
    expect(within(pins).getAllByRole('listitem')).toHaveLength(1);
    press('Delete pin 1', pins);
    expect(now().photos[0]?.pins).toEqual([]);
  });

  test('one that another device has not sent yet says so; taken out it can be had back', async () => {
    const job = exampleJob('pantry');
    job.photos = [
      { id: 'p1', boxId: String(job.boxes[0]?.id), stage: 'before', pins: [] },
    ] as unknown as Job['photos'];
    const { job: now } = await photos(job);
    const list = screen.getByRole('region', { name: 'before' });
    fireEvent.error(within(list).getByRole('img'));
    expect(within(list).getByText('Not here yet: another device has it.')).toBeInTheDocument();
    fireEvent.click(within(list).getByRole('button'));
    press('Delete the photograph');
    expect(now().photos).toEqual([]);
    expect(screen.getByText('The photograph is deleted.')).toBeInTheDocument();
    press('Undo');
    expect(now().photos).toHaveLength(1);
  });
});
