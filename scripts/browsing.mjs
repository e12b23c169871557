// The application, built and served, and a browser to look at it with: for scripts that drive the screen.
import { spawn } from 'node:child_process';
import { chromium as playwright } from '@playwright/test';
import { build, chromiumPath, install, root } from './prepare.mjs';

/** Serves on a port of its own. @returns the address, the browser, and what ends both */
export async function browsing(port) {
  install();
  build();
  const server = spawn('node', ['scripts/start.mjs'], {
    cwd: root,
    env: { ...process.env, PORT: port },
    stdio: 'pipe'
  });
  await new Promise((resolve) =>
    server.stdout.on('data', (text) => String(text).includes('Focalis is at') && resolve())
  );
  const browser = await playwright.launch({
    executablePath: chromiumPath,
    args: [
      '--no-sandbox',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--use-angle=swiftshader',
      '--enable-unsafe-swiftshader'
    ]
  });
  const end = async () => {
    await browser.close();
    server.kill();
  };
  return { base: `http://127.0.0.1:${port}`, browser, end };
}
