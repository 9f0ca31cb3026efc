import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createConfig, lintFromString } from '@redocly/openapi-core';
import { type TestApp, testApp } from '../test-support/test-app.js';
import { OPERATIONS } from './operations.js';

let server: TestApp;
beforeAll(async () => {
  server = await testApp();
});
afterAll(() => server.close());

const document = async () => (await server.app.inject('/api/docs/json')).json();

/** What the linter says. Who may call what is not told yet. */
async function lint(text: string): Promise<string[]> {
  const config = await createConfig({
    extends: ['recommended-strict'],
    rules: { 'security-defined': 'off' },
  });
  const problems = await lintFromString({ source: text, absoluteRef: 'openapi.json', config });
  return problems.map(({ ruleId, message, location }) => `${ruleId}: ${message} ${location[0]?.pointer}`);
}

test('the linter finds nothing in the document, and something in one that lacks a name', async () => {
  const text = JSON.stringify(await document());
  expect(await lint(text)).toEqual([]);
  expect(await lint(text.replace('"operationId":"listJobs",', ''))).toEqual([
    expect.stringContaining('operation-operationId'),
  ]);
});

test('every operation is described once, and none that is not there', async () => {
  const { paths } = await document();
  const there = Object.entries(paths as Record<string, object>).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => `${method.toUpperCase()} ${path}`),
  );
  expect(there.sort()).toEqual(Object.keys(OPERATIONS).sort());
  const ids = Object.values(OPERATIONS).map((operation) => operation.operationId);
  expect(new Set(ids).size).toBe(ids.length);
});

test('bodies and answers refer to the schemas of the core', async () => {
  const { paths, components } = await document();
  expect(Object.keys(components.schemas)).toEqual(
    expect.arrayContaining([
      'Job',
      'Edit',
      'EditPart',
      'EditsAnswer',
      'Change',
      'HistoryEntry',
      'JobSummary',
      'Catalogue',
      'Error',
    ]),
  );
  const answer = paths['/api/jobs/{jobId}/edits'].post.responses['200'].content['application/json'].schema;
  expect(JSON.stringify(answer)).toContain('#/components/schemas/EditsAnswer');
});

test('pages of the documentation come without styles or scripts from elsewhere', async () => {
  const page = await server.app.inject('/api/docs/');
  expect(page.statusCode).toBe(200);
  expect(String(page.headers['content-security-policy'])).not.toMatch(/https:/);
});
