// Draws the house into docs/architecture.md: its rooms and who asks whom, read from the imports.
// Usage: node scripts/map.mjs [--check]; with --check it only says whether the page is the present one.
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const page = join(root, 'docs/architecture.md');
const [BEGIN, END] = ['<!-- map -->', '<!-- end of the map -->'];

const under = (folder) =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? under(path) : [path];
  });

/** Folders directly under `folder`, with the files in each. */
const rooms = (folder, kind) =>
  readdirSync(folder)
    .filter((name) => statSync(join(folder, name)).isDirectory())
    .map((name) => [name, under(join(folder, name)).filter((path) => kind.test(path))]);

/** Which rooms each room asks; `asked` reads the names of rooms off a file. */
const arrows = (found, asked) =>
  found.map(([name, files]) => {
    const names = new Set(files.flatMap((path) => asked(readFileSync(path, 'utf8'), path)));
    const known = found.map(([other]) => other);
    return [name, known.filter((other) => other !== name && names.has(other))];
  });

/** Names after `crate::`, also those in braces. */
const ofCrate = (text) =>
  [...text.matchAll(/\bcrate::(?:([a-z_]+)|\{([^;]*)\})/g)].flatMap(([, one, several]) =>
    one ? [one] : [...several.matchAll(/(?:^|,)\s*([a-z_]+)/g)].map(([, name]) => name),
  );

const source = join(root, 'web/src');
const ofPage = (text, path) =>
  [...text.matchAll(/from '(\.[^']+)'/g)].map(([, to]) =>
    resolve(dirname(path), to).slice(source.length + 1).replace(/^features\//, '').split('/')[0],
  );

const drawn = (found) =>
  [
    '```mermaid',
    'flowchart TD',
    ...found.flatMap(([name, asks]) =>
      asks.length ? asks.map((other) => `  ${name} --> ${other}`) : [`  ${name}`],
    ),
    '```',
  ].join('\n');

const listed = (found) =>
  found.map(([name, asks]) => `- \`${name}\`${asks.length ? `: ${asks.join(', ')}` : ''}`).join('\n');

/** Only arrows that no other way goes along: the drawing stays readable. */
const shortest = (found) => {
  const asks = new Map(found);
  const reaches = (from, to, seen = new Set()) =>
    (asks.get(from) ?? []).some(
      (next) => next === to || (!seen.has(next) && reaches(next, to, seen.add(next))),
    );
  return found.map(([name, all]) => [
    name,
    all.filter((other) => !all.some((between) => between !== other && reaches(between, other))),
  ]);
};

const core = arrows(rooms(join(root, 'crates/core/src'), /\.rs$/), ofCrate);
const server = arrows(rooms(join(root, 'crates/server/src'), /\.rs$/), ofCrate);
const features = arrows(rooms(join(source, 'features'), /(?<!\.spec)\.tsx?$/), ofPage);
const map = `${BEGIN}
### Core
An arrow means "asks"; one that a longer way goes along is left out.

${drawn(shortest(core))}

### Folders of the server
${listed(server)}

### Features of the page, and which of the others each imports
${listed(features)}

${END}`;

const text = readFileSync(page, 'utf8');
const [before, rest] = text.split(BEGIN);
const now = `${before}${map}${rest.split(END)[1]}`;
if (!process.argv.includes('--check')) writeFileSync(page, now);
else if (now !== text) {
  console.error(`${basename(page)} draws an older house: run scripts/generate.sh`);
  process.exit(1);
}
