import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['dist', 'src/api/schema.ts', 'node_modules'] },
  ...tseslint.configs.strict,
  ...tseslint.configs.stylistic,
  hooks.configs.flat['recommended-latest'],
  {
    rules: {
      'no-restricted-globals': ['error', { name: 'fetch', message: 'Only src/api fetches.' }],
      'no-console': 'error',
    },
  },
  { files: ['src/api/**'], rules: { 'no-restricted-globals': 'off' } },
);
