import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['dist', 'target', 'src/api/schema.ts'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    plugins: { 'react-hooks': hooks },
    rules: {
      ...hooks.configs.recommended.rules,
      'no-console': 'error',
      // The virtual list of TanStack cannot be memoised by the compiler; it is not used here.
      'react-hooks/incompatible-library': 'off',
    },
  },
);
