import '@testing-library/jest-dom/jest-globals';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import { unzipSync } from 'fflate';
import { timeOf } from '../parts/times.js';
import { press } from '../test-support/by-hand.js';
import { exampleJob } from '../test-support/example-job.js';
import { makeApi } from './api.js';
import { csvOf, downloadCsv, downloadJob, rowsOfCsv } from './downloads.js';
import { Listeners } from './listeners.js';
import { PreferencesProvider, usePreferences, useUnits } from './preferences.js';
import { workbookOf } from './spreadsheet.js';

afterEach(cleanup);

/** The sheets of a workbook as the texts in them. */
async function inside(workbook: Blob): Promise<string> {
  const bytes = await new Promise<ArrayBuffer>((done, failed) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result as ArrayBuffer);
    reader.onerror = () => failed(reader.error);
    reader.readAsArrayBuffer(workbook);
  });
  const files = unzipSync(new Uint8Array(bytes));
  return Object.entries(files)
    .map(([name, content]) => `${name}\n${new TextDecoder().decode(content)}`)
    .join('\n');
}

describe('a workbook', () => {
  test('has a sheet for each table, its heads in bold and standing while one scrolls', async () => {
    const text = await inside(
      await workbookOf([
        { name: 'Materials', rows: [{ item: 'Plate', count: 3 }] },
        { name: 'Estimate', rows: [{ item: 'Together', amount: 42.5 }] },
      ]),
    );
    for (const wanted of ['Materials', 'Estimate', 'Plate', '42.5', 'frozen', '<b/>'])
      expect(text).toContain(wanted);
  });

  test('of nothing is a workbook all the same', async () => {
    expect(await inside(await workbookOf([{ name: 'Materials', rows: [] }]))).toContain('Materials');
  });
});

describe('a table as CSV', () => {
  test('keeps what is in it, commas, quotes and lines, and goes out and in', async () => {
    const rows = [{ name: 'A "long", odd\nname', price: '12' }];
    const back = await rowsOfCsv(await csvOf(rows));
    expect(back).toEqual({ rows, problems: [] });
  });

  test.each(['=1+1', '+1', '-1', '@x'])(
    '%s is no formula, and is itself again when it comes in',
    async (cell) => {
      const text = await csvOf([{ cell }]);
      expect(text).toContain(`'${cell}`);
      expect((await rowsOfCsv(text)).rows).toEqual([{ cell }]);
    },
  );

  test('with a head alone holds no rows; a row too long is named by its line', async () => {
    expect((await rowsOfCsv('a,b\r\n')).problems).toMatchObject([
      { message: 'holds no rows below its head' },
    ]);
    expect((await rowsOfCsv('a,b\r\n1,2,3\r\n')).problems).toMatchObject([{ path: '/0' }]);
  });
});

describe('a file saved', () => {
  const made: { name: string; type: string }[] = [];
  const before = { make: URL.createObjectURL, click: HTMLAnchorElement.prototype.click };
  beforeEach(() => {
    made.length = 0;
    let type = '';
    URL.createObjectURL = (blob) => {
      type = (blob as Blob).type;
      return 'blob:x';
    };
    HTMLAnchorElement.prototype.click = function () {
      made.push({ name: this.download, type });
    };
  });
  afterEach(() => {
    URL.createObjectURL = before.make;
    HTMLAnchorElement.prototype.click = before.click;
  });

  test('is called after the job, in letters every system takes', async () => {
    const job = { ...exampleJob('pantry'), name: 'Mühle — No. 3!' };
    downloadJob(job);
    await downloadCsv(job, 'materials', [{ a: 1 }]);
    expect(made.map(({ name }) => name)).toEqual([
      'mu-hle-no-3.inventario.json',
      'mu-hle-no-3-materials.csv',
    ]);
    downloadJob({ ...job, name: '…' });
    expect(made.at(-1)?.name).toBe('job.inventario.json');
  });
});

describe('times', () => {
  const now = new Date(2026, 4, 4, 18, 0);
  test('of today are an hour, of another day a day too', () => {
    expect(timeOf(new Date(2026, 4, 4, 9, 5).toISOString(), now)).toMatch(/^at 0?9[:.]05/);
    expect(timeOf(new Date(2026, 4, 3, 23, 59).toISOString(), now)).toMatch(/^on .*3.* at /);
    // The same day of another year is another day.
    expect(timeOf(new Date(2025, 4, 4, 9, 5).toISOString(), now)).toMatch(/^on /);
  });
});

describe('what this device’s user prefers', () => {
  function Shown() {
    const { theme, setTheme, setUnits } = usePreferences();
    const units = useUnits({ practice: 'us' });
    return (
      <>
        <p>
          {theme}, {units}
        </p>
        <button type="button" onClick={() => setTheme('dark')}>
          Dark
        </button>
        <button type="button" onClick={() => setUnits('metric')}>
          Metric
        </button>
        <button type="button" onClick={() => setUnits(null)}>
          As usual
        </button>
      </>
    );
  }
  const show = () =>
    render(
      <PreferencesProvider>
        <Shown />
      </PreferencesProvider>,
    );
  beforeEach(() => {
    localStorage.clear();
    delete document.documentElement.dataset.theme;
  });

  test('units are the practice’s until somebody says otherwise, which stays', () => {
    show();
    expect(screen.getByText('light, inch')).toBeInTheDocument();
    press('Metric');
    expect(screen.getByText('light, metric')).toBeInTheDocument();
    cleanup();
    show();
    expect(screen.getByText('light, metric')).toBeInTheDocument();
    press('As usual');
    expect(screen.getByText('light, inch')).toBeInTheDocument();
    expect(localStorage.getItem('units')).toBeNull();
  });

  test('the theme stands on the page and stays', () => {
    show();
    press('Dark');
    expect(document.documentElement.dataset.theme).toBe('dark');
    expect(localStorage.getItem('theme')).toBe('dark');
  });
});

test('who listens hears until it does no more', () => {
  const listeners = new Listeners();
  let heard = 0;
  const stop = listeners.subscribe(() => heard++);
  listeners.tell();
  stop();
  listeners.tell();
  expect(heard).toBe(1);
});

describe('what is asked of the server', () => {
  interface Sent {
    path: string;
    init: RequestInit | undefined;
  }
  const answering = (status: number, body: unknown, headers: Record<string, string> = {}) => {
    const sent: Sent[] = [];
    const api = makeApi(async (path, init) => {
      sent.push({ path, init });
      return {
        ok: status < 300,
        status,
        headers: { get: (name: string) => headers[name] ?? null },
        json: async () => body,
        text: async () => (typeof body === 'string' ? body : JSON.stringify(body)),
      } as unknown as Response;
    });
    return { api, sent };
  };

  test('a page of jobs with what comes after it', async () => {
    const link = '</api/jobs?search=mill&after=c9>; rel="next"';
    const { api, sent } = answering(200, [{ id: 'a' }], { link });
    expect(await api.jobs('mill', 'c1')).toEqual({ jobs: [{ id: 'a' }], next: 'c9' });
    expect(sent[0]?.path).toBe('/api/jobs?search=mill&after=c1');
  });

  test('a job that is as it was known is not sent again', async () => {
    const { api, sent } = answering(304, null);
    const job = exampleJob('pantry');
    expect(await api.job('a', { job, sequence: 7, generation: 'g' })).toBeNull();
    expect(new Headers(sent[0]?.init?.headers).get('if-none-match')).toBe('"g-7"');
  });

  test('a refusal comes with its code, words and fields', async () => {
    const problems = [{ path: '/name', message: 'is empty' }];
    const { api } = answering(400, { error: { code: 'invalid', message: 'It does not hold.', problems } });
    await expect(api.takeIn({})).rejects.toMatchObject({
      status: 400,
      code: 'invalid',
      message: 'It does not hold.',
      problems,
    });
  });

  test('an answer in nobody’s shape is a fault of the server; one of a gateway says it is not reached', async () => {
    await expect(answering(500, 'x').api.ready()).rejects.toMatchObject({ code: 'internal', status: 500 });
    await expect(answering(502, 'x').api.ready()).rejects.toThrow('The server is not reached.');
  });

  test('the history of one record, from an entry back', async () => {
    const { api, sent } = answering(200, []);
    await api.history('a', { kind: 'box', id: 'b' }, 40);
    expect(sent[0]?.path).toBe('/api/jobs/a/history?kind=box&id=b&before=40');
  });
});
