/** Starts the built application with a private database of its own. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { CLOCK } from './launch';

const ROOT = new URL('..', import.meta.url).pathname;

export interface Server {
  url: string;
  /** Folder of the private database. */
  data: string;
  stop: () => Promise<void>;
}

/** The application at a free port; its clock shows `CLOCK` when it starts. */
export async function startServer(binary = 'target/debug/ulvek'): Promise<Server> {
  const data = mkdtempSync(join(process.env.ULVEK_SCRATCH ?? tmpdir(), 'journey-'));
  const args = ['serve', '--demo', '--listen', '127.0.0.1:0', '--data', data, '--clock', CLOCK];
  const env = { ...process.env };
  delete env.DATABASE_URL;
  const child = spawn(join(ROOT, binary), args, {
    cwd: ROOT,
    env,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const url = await firstAddress(child);
  return {
    url,
    data,
    stop: async () => {
      const ended = new Promise((resolve) => child.once('exit', resolve));
      child.kill('SIGTERM');
      await ended;
      rmSync(data, { recursive: true, force: true });
    },
  };
}

function firstAddress(child: ChildProcess): Promise<string> {
  return new Promise((resolve, reject) => {
    child.once('exit', (code) => reject(new Error(`ulvek serve ended with ${code}`)));
    if (!child.stdout) return;
    createInterface({ input: child.stdout }).on('line', (line) => {
      const found = /http:\S+/.exec(line);
      if (found) resolve(found[0]);
    });
  });
}
