import { spawn, type ChildProcess } from 'node:child_process';

/** A server of the test's own, on a port of its own. */
export async function ownServer(
  port: number,
  env: Record<string, string> = {},
  more: readonly string[] = []
): Promise<ChildProcess> {
  const child = spawn('node', ['scripts/start.mjs', '--port', String(port), ...more], {
    env: { ...process.env, ...env }
  });
  // Whatever becomes of the test.
  process.once('exit', () => child.kill());
  await new Promise<void>((resolve, reject) => {
    let said = '';
    const look = (text: Buffer) => {
      said += String(text);
      if (said.includes('Focalis is at')) resolve();
    };
    child.stdout.on('data', look);
    child.stderr.on('data', look);
    child.once('exit', () => reject(new Error(said)));
  });
  return child;
}

/** Stops it, and waits until it is gone. */
export async function stopped(server: ChildProcess): Promise<void> {
  if (server.exitCode !== null) return;
  const gone = new Promise((resolve) => server.once('exit', resolve));
  server.kill('SIGTERM');
  await gone;
}
