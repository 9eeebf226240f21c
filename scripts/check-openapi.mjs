// Holds that the committed OpenAPI document is a valid one of its version.
import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';

const file = process.argv[2];
const require = createRequire(pathToFileURL(`${process.cwd()}/package.json`));
const { Validator } = await import(
  pathToFileURL(require.resolve('@seriousme/openapi-schema-validator')).href
);
const validator = new Validator();
const checked = await validator.validate(JSON.parse(readFileSync(file, 'utf8')));
if (!checked.valid) {
  console.error(`${file} is not a valid OpenAPI document:`);
  console.error(JSON.stringify(checked.errors, null, 2).slice(0, 4000));
  process.exit(1);
}
if (validator.version !== '3.1') {
  console.error(`${file} is of version ${validator.version}, not 3.1`);
  process.exit(1);
}
