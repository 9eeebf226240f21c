// Compresses the built front end once, so that no request pays for it.
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';

const walk = (folder) =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? walk(path) : [path];
  });

for (const path of walk(process.argv[2])) {
  if (!/\.(js|css|html|svg|json|webmanifest)$/.test(path)) continue;
  const bytes = readFileSync(path);
  writeFileSync(`${path}.br`, brotliCompressSync(bytes));
  writeFileSync(`${path}.gz`, gzipSync(bytes));
}
