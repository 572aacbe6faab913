import boundaries from 'eslint-plugin-boundaries';
import jsxA11y from 'eslint-plugin-jsx-a11y';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** The rooms of the house, and what each may know. `ui`, `api` and the session's machine know nothing of the others. */
const rooms = {
  app: ['app', 'screens', 'instruments', 'session', 'ui', 'api'],
  screens: ['screens', 'instruments', 'session', 'machine', 'ui', 'api'],
  instruments: ['instruments', 'session', 'machine', 'ui', 'api'],
  session: ['session', 'machine', 'ui', 'api'],
  machine: ['machine'],
  ui: ['ui'],
  api: ['api'],
};

export default tseslint.config(
  { ignores: ['src/api/schema.d.ts'] },
  ...tseslint.configs.strict,
  jsxA11y.flatConfigs.recommended,
  reactHooks.configs.flat.recommended,
  // A dialog that is for searching begins in its search field.
  { rules: { 'jsx-a11y/no-autofocus': ['error', { ignoreNonDOM: true }] } },
  {
    files: ['src/**/*.{ts,tsx}'],
    plugins: { boundaries },
    settings: {
      'import/resolver': { node: { extensions: ['.ts', '.tsx', '.d.ts', '.json'] } },
      'boundaries/include': ['src/**/*'],
      'boundaries/elements': Object.keys(rooms)
        // The first that fits is taken: the machine before the session around it.
        .sort((one) => (one === 'machine' ? -1 : 0))
        .map((type) => ({ type, pattern: type === 'machine' ? 'src/session/machine' : `src/${type}` })),
    },
    rules: {
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          policies: Object.entries(rooms).map(([from, to]) => ({
            from: { element: { type: from } },
            allow: { to: { element: { type: to } } },
          })),
        },
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: "JSXAttribute[name.name='style']",
          message: 'Looks stand in styled components and their tokens, not in style={{}}.',
        },
      ],
    },
  },
);
