import '@testing-library/jest-dom/jest-globals';
import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { laidOut } from '../test-support/laid-out.js';
import { DataTable, type TableColumn } from './data-table.js';
import { SortableList } from './sortable-list.js';
import { Zoomable } from './zoomable.js';

afterEach(cleanup);

interface Part {
  id: string;
  name: string;
  price: number;
}

const PARTS: Part[] = [
  { id: 'c', name: 'Connector 10', price: 5 },
  { id: 'a', name: 'Connector 2', price: 40 },
  { id: 'b', name: 'Plate', price: 8 },
];
const COLUMNS: TableColumn<Part>[] = [
  { id: 'name', head: 'Name', names: true, value: ({ name }) => name, cell: ({ name }) => name },
  { id: 'price', head: 'Price', align: 'right', value: ({ price }) => price, cell: ({ price }) => price },
  { id: 'out', head: 'Delete', hideHead: true, cell: ({ id }) => `out ${id}` },
];

const table = (more: Partial<Parameters<typeof DataTable<Part>>[0]> = {}) =>
  render(
    <DataTable<Part>
      label="Parts"
      rows={PARTS}
      columns={COLUMNS}
      idOf={({ id }) => id}
      nameOf={({ name }) => name}
      {...more}
    />,
  );
const names = () =>
  screen
    .getAllByRole('rowheader')
    .map((cell) => cell.textContent)
    .filter((name) => name !== null);

describe('a table', () => {
  test('stands as it comes; its rows are named, and the cell that names one is its heading', () => {
    table();
    expect(names()).toEqual(['Connector 10', 'Connector 2', 'Plate']);
    expect(within(screen.getByRole('row', { name: 'Plate' })).getByText('out b')).toBeInTheDocument();
  });

  test('is sorted by a touch, the other way by a second, and as it came by a third', () => {
    table();
    const heading = () => screen.getByRole('columnheader', { name: 'Price' });
    expect(heading()).not.toHaveAttribute('aria-sort');
    fireEvent.click(screen.getByRole('button', { name: 'Price' }));
    expect(names()).toEqual(['Connector 10', 'Plate', 'Connector 2']);
    expect(heading()).toHaveAttribute('aria-sort', 'ascending');
    fireEvent.click(screen.getByRole('button', { name: 'Price' }));
    expect(names()).toEqual(['Connector 2', 'Plate', 'Connector 10']);
    expect(heading()).toHaveAttribute('aria-sort', 'descending');
    fireEvent.click(screen.getByRole('button', { name: 'Price' }));
    expect(names()).toEqual(['Connector 10', 'Connector 2', 'Plate']);
  });

  test('sorts numbers in names as numbers', () => {
    table();
    fireEvent.click(screen.getByRole('button', { name: 'Name' }));
    expect(names()).toEqual(['Connector 2', 'Connector 10', 'Plate']);
  });

  test('is not sorted by what has no value', () => {
    table();
    expect(screen.queryByRole('button', { name: 'Delete' })).toBeNull();
    expect(screen.getByRole('columnheader', { name: 'Delete' })).toBeInTheDocument();
  });

  test.each([
    ['', 3],
    ['connector', 2],
    ['CONN 10', 1],
    ['10 conn', 1],
    ['nowhere', 0],
  ])('searched for “%s” leaves %i rows', (search, left) => {
    table({ search, words: ({ name }) => name, nothing: 'None is called so.' });
    expect(screen.queryAllByRole('rowheader')).toHaveLength(left);
    expect(screen.queryByText('None is called so.') !== null).toBe(left === 0);
  });

  test('has other rows when it is given others', () => {
    const { rerender } = table();
    rerender(<DataTable label="Parts" rows={PARTS.slice(2)} columns={COLUMNS} idOf={({ id }) => id} />);
    expect(names()).toEqual(['Plate']);
  });
});

describe('a list put in order by hand', () => {
  const list = (ids: string[], onOrder: (ids: string[]) => void = () => {}) =>
    render(
      <SortableList label="Rooms" ids={ids} nameOf={(id) => `Room ${id}`} onOrder={onOrder}>
        {(id) => <span>Room {id}</span>}
      </SortableList>,
    );

  test('a row alone has nothing to be moved past', () => {
    list(['a']);
    expect(screen.queryByRole('button')).toBeNull();
    expect(screen.getByText('Room a')).toBeInTheDocument();
  });

  test('is moved with the keyboard, and each step is said', async () => {
    laidOut();
    const orders: string[][] = [];
    list(['a', 'b', 'c'], (ids) => orders.push(ids));
    const handle = screen.getByRole('button', { name: 'Move Room a' });
    handle.focus();
    fireEvent.keyDown(handle, { code: 'Space' });
    expect(await screen.findByText('Room a, place 1 of 3.')).toBeInTheDocument();
    // The library hears further keys once its own turn is over.
    await new Promise((done) => setTimeout(done, 0));
    fireEvent.keyDown(document, { code: 'ArrowDown' });
    expect(await screen.findByText('Room a, place 2 of 3.')).toBeInTheDocument();
    fireEvent.keyDown(document, { code: 'Space' });
    await waitFor(() => expect(orders).toEqual([['b', 'a', 'c']]));
  });

  test('escape leaves it where it was', async () => {
    laidOut();
    const orders: string[][] = [];
    list(['a', 'b'], (ids) => orders.push(ids));
    const handle = screen.getByRole('button', { name: 'Move Room b' });
    handle.focus();
    fireEvent.keyDown(handle, { code: 'Space' });
    await screen.findByText('Room b, place 2 of 2.');
    await new Promise((done) => setTimeout(done, 0));
    fireEvent.keyDown(document, { code: 'Escape' });
    expect(await screen.findByText('Room b stays where it was.')).toBeInTheDocument();
    expect(orders).toEqual([]);
  });
});

describe('a drawing that can be drawn larger', () => {
  test('stands whole; larger it can be drawn smaller and whole again', async () => {
    render(
      <Zoomable>
        <svg role="img" aria-label="A box" />
      </Zoomable>,
    );
    expect(screen.queryByRole('button', { name: 'The drawing whole' })).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'The drawing larger' }));
    expect(await screen.findByRole('button', { name: 'The drawing smaller' })).toBeInTheDocument();
    fireEvent.click(await screen.findByRole('button', { name: 'The drawing whole' }));
    await waitFor(() => expect(screen.queryByRole('button', { name: 'The drawing smaller' })).toBeNull());
  });

  test('has an end', async () => {
    render(
      <Zoomable>
        <svg role="img" aria-label="A box" />
      </Zoomable>,
    );
    const larger = () => screen.getByRole('button', { name: 'The drawing larger' });
    for (let step = 0; step < 12; step++) {
      fireEvent.click(larger());
      await new Promise((done) => setTimeout(done, 20));
    }
    await waitFor(() => expect(larger()).toBeDisabled());
  });
});
