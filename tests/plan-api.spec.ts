import { execFileSync, spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { answerPlanRequest } from '../src/core/service/planRequest';
import { demoJobs } from '../src/core/job/demo';
import { call, expect, openDemo, test } from './support';

const body = JSON.stringify({
  setup: demoJobs()[0].setups[1],
  stopStep: 'third',
  include: ['alternatives', 'remedies', 'lineUp', 'sensitivity']
});
const headers = { 'content-type': 'application/json' };

test('core, server and command line give the same bytes for the same input', async ({ request }, info) => {
  const core = answerPlanRequest(body);
  const expected = core.ok ? core.json : '';
  const response = await request.post('/api/plan', { data: Buffer.from(body), headers });
  expect(response.status()).toBe(200);
  expect(await response.text()).toBe(expected);

  const file = info.outputPath('request.json');
  writeFileSync(file, body);
  const run = (args: string[], input = '') =>
    execFileSync('npm', ['run', '-s', 'plan', '--', ...args], {
      input,
      encoding: 'utf8',
      maxBuffer: 1 << 26,
      stdio: ['pipe', 'pipe', 'ignore']
    });
  expect(run([file])).toBe(expected);
  expect(run(['-'], body)).toBe(expected);
});

test('the command line names the field and exits with an error on bad input', () => {
  const bad = JSON.stringify({ setup: { ...demoJobs()[0].setups[0], notes: 5 } });
  const result = spawnSync('npm', ['run', '-s', 'plan', '--', '-'], { input: bad, encoding: 'utf8' });
  expect(result.status).not.toBe(0);
  expect(result.stderr).toContain('setup.notes');
  expect(result.stdout).toBe('');
  expect(spawnSync('npm', ['run', '-s', 'plan', '--', '/nowhere.json'], { encoding: 'utf8' }).status).not.toBe(0);
});

test('the server refuses what it cannot answer, each with its status and reason', async ({ request }) => {
  const post = async (data: string, type = 'application/json') => {
    const response = await request.post('/api/plan', { data: Buffer.from(data), headers: { 'content-type': type } });
    return {
      status: response.status(),
      body: (await response.json().catch(() => null)) as { field: string; reason: string } | null
    };
  };
  expect(await post('{')).toEqual({ status: 400, body: { field: '', reason: 'The request is not complete JSON.' } });
  expect(await post('{"setup": 3}')).toMatchObject({ status: 400, body: { field: 'setup' } });
  for (const type of ['text/csv', 'application/jsonx', 'application/json/x', 'json']) {
    expect(await post(body, type)).toMatchObject({ status: 415, body: { field: '' } });
  }
  expect((await post(body, 'APPLICATION/JSON; charset=utf-8')).status).toBe(200);
  expect(await post(`"${'a'.repeat(600_000)}"`)).toMatchObject({ status: 413, body: { field: '' } });
  const schema = (await (await request.get('/api/plan/schema')).json()) as { properties: object };
  expect(Object.keys(schema.properties)).toEqual(['version', 'setup', 'kit', 'habits', 'stopStep', 'include']);
  const refused = async (path: string) => {
    const response = await request.get(path);
    return [response.status(), Object.keys((await response.json()) as object)];
  };
  expect(await refused('/api/plan')).toEqual([405, ['field', 'reason']]);
  expect(await refused('/api/none')).toEqual([404, ['field', 'reason']]);
  expect(await refused('/api/rangefinder?mm=no')).toEqual([400, ['field', 'reason']]);
  const head = await request.head('/api/plan/schema');
  expect([head.status(), head.headers()['content-type'], await head.text()]).toEqual([200, 'application/json', '']);
  expect((await request.head('/api/plan')).status()).toBe(405);
});

test('a conflict offers its best fix, worked out beside the main thread, with one button and undo', async ({
  page
}) => {
  await openDemo(page, 'West door, the 50');
  const before = (await call(page).textContent()) ?? '';
  await page.getByRole('tab', { name: 'People' }).click();
  const fix = page.getByTestId('best-fix');
  await expect(fix).toContainText('Settle for Ines’s near eye only');
  await fix.getByRole('button', { name: 'Apply' }).click();
  await expect(page.getByTestId('conflict')).toHaveCount(0);
  await expect(page.getByTestId('window-band')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(call(page)).toHaveText(before);
  await expect(fix).toBeVisible();
});
