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
  /** Ends it, and starts it again at the same address on the same data, when its clock shows `clock`. */
  again: (clock: string) => Promise<Server>;
}

/** The application at a free port, told `more`; its clock shows `CLOCK` when it starts. */
export function startServer(more: string[] = []): Promise<Server> {
  const data = mkdtempSync(join(process.env.ULVEK_SCRATCH ?? tmpdir(), 'journey-'));
  return startOn(data, '127.0.0.1:0', CLOCK, more);
}

async function startOn(
  data: string,
  listen: string,
  clock: string,
  more: string[],
): Promise<Server> {
  const binary = 'target/debug/ulvek';
  const args = ['serve', '--demo', '--listen', listen, '--data', data, '--clock', clock, ...more];
  const env = { ...process.env };
  delete env.DATABASE_URL;
  const child = spawn(join(ROOT, binary), args, {
    cwd: ROOT,
    env,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const url = await firstAddress(child);
  const end = async () => {
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGTERM');
    await ended;
  };
  return {
    url,
    data,
    stop: async () => {
      await end();
      rmSync(data, { recursive: true, force: true });
    },
    again: async (then) => {
      await end();
      return startOn(data, new URL(url).host, then, more);
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
