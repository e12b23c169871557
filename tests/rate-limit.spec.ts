import { spawn } from 'node:child_process';
import { expect, test } from '@playwright/test';

test('an address that asks too often is told to wait, and for how long', async ({ request }) => {
  // A server of its own, so that the other tests keep their share.
  const port = '4198';
  const server = spawn('node', ['build/index.js'], {
    env: { ...process.env, HOST: '127.0.0.1', PORT: port },
    stdio: 'ignore'
  });
  try {
    const url = `http://127.0.0.1:${port}/api/plan`;
    await expect
      .poll(() =>
        request.get(`${url}/schema`).then(
          (response) => response.status(),
          () => 0
        )
      )
      .toBe(200);
    const statuses: number[] = [];
    let wait = '';
    for (let i = 0; i < 125; i++) {
      const response = await request.post(url, {
        data: Buffer.from('{}'),
        headers: { 'content-type': 'application/json' }
      });
      statuses.push(response.status());
      wait = response.headers()['retry-after'] ?? '';
    }
    expect(statuses.slice(0, 120).every((status) => status === 400)).toBe(true);
    expect(statuses.at(-1)).toBe(429);
    expect(Number(wait)).toBeGreaterThan(0);
  } finally {
    server.kill();
  }
});
