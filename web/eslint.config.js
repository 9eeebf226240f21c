import a11y from 'eslint-plugin-jsx-a11y';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['dist', 'src/api/schema.ts', 'node_modules'] },
  ...tseslint.configs.strict,
  ...tseslint.configs.stylistic,
  hooks.configs.flat['recommended-latest'],
  a11y.flatConfigs.recommended,
  {
    rules: {
      'no-restricted-globals': ['error', { name: 'fetch', message: 'Only src/api fetches.' }],
      'no-console': 'error',
      // The first field of a dialog takes the focus: that is what opens it.
      'jsx-a11y/no-autofocus': ['error', { ignoreNonDOM: true }],
    },
  },
  { files: ['src/api/**'], rules: { 'no-restricted-globals': 'off' } },
);
