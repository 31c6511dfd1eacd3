import { readdirSync } from 'node:fs';
import { dirname, relative, resolve, sep } from 'node:path';
import vue from 'eslint-plugin-vue';
import ts from 'typescript-eslint';

/** The floors of a package, ground first: a file may import only from floors below its own. Files beside the floors join them. */
const FLOORS = {
  core: [
    'words',
    'math',
    'voxel',
    'palette',
    'codec',
    'model',
    'generate',
    'intake',
    'terrain',
    'sculpt',
    'paint',
    'rig',
    'motion',
    'scene',
    'mesh',
    'render',
    'takes',
    'files',
    'project',
  ],
  app: ['styles', 'words', 'tools', 'workers', 'storage', 'viewport', 'stores', 'components', 'shell', 'screens'],
};
/** What each package may import of ours. */
const PACKAGES = {
  core: [],
  app: ['core', 'content'],
  server: ['core'],
  cli: ['core'],
  content: ['core'],
  benchmarks: ['core', 'content', 'app', 'cli', 'server'],
  e2e: [],
};
const root = import.meta.dirname;

const floors = {
  meta: {
    type: 'problem',
    schema: [],
    messages: {
      up: '{{pack}}/{{from}} may not import {{pack}}/{{to}}: floors import downwards only.',
      unknown: '{{pack}}/{{to}} is not on the list of floors.',
      package: '{{from}} may not import {{to}}.',
      outside: 'core may not import "{{to}}": it runs without Node, DOM, Vue and Three.js.',
    },
  },
  create(context) {
    const [pack, src, floor] = relative(root, context.filename).split(sep);
    const isTest = /\.(test|spec)\.ts$/.test(context.filename);
    const check = (node) => {
      const source = node.source?.value;
      if (typeof source !== 'string') return;
      const ours = /^@sphalerite\/(\w+)/.exec(source);
      if (ours && pack in PACKAGES && !PACKAGES[pack].includes(ours[1]) && ours[1] !== pack)
        context.report({ node, messageId: 'package', data: { from: pack, to: ours[1] } });
      const list = FLOORS[pack];
      if (!list || src !== 'src') return;
      if (pack === 'core' && !isTest && /^(node:|vue|three|pinia|dexie|express)/.test(source))
        context.report({ node, messageId: 'outside', data: { to: source } });
      if (!source.startsWith('.')) return;
      const [, , to] = relative(root, resolve(dirname(context.filename), source)).split(sep);
      if (to === floor || !list.includes(floor)) return;
      if (!list.includes(to)) context.report({ node, messageId: 'unknown', data: { pack, to } });
      else if (!isTest && list.indexOf(to) >= list.indexOf(floor))
        context.report({ node, messageId: 'up', data: { pack, from: floor, to } });
    };
    return { ImportDeclaration: check, ExportNamedDeclaration: check, ExportAllDeclaration: check };
  },
};

for (const [pack, list] of Object.entries(FLOORS)) {
  for (const f of readdirSync(`${root}/${pack}/src`, { withFileTypes: true })) {
    if (f.isDirectory() && !list.includes(f.name))
      throw new Error(`${pack}/src/${f.name} is not on the list of floors in eslint.config.js.`);
  }
}

/** What is remembered of a file counts only while the floors and the rule are these. */
const RULES_VERSION = { name: 'sphalerite', version: JSON.stringify([FLOORS, PACKAGES, String(floors.create)]) };

export default ts.config(
  {
    ignores: [
      '**/dist/',
      '**/node_modules/',
      'app/public/',
      'content/out/',
      'test-results/',
      'benchmarks/frozen/tracer.js',
    ],
  },
  ...ts.configs.recommended,
  ...vue.configs['flat/essential'],
  {
    // Controls are those of components/; what must be our own says why where it stands.
    files: ['app/src/**/*.vue'],
    rules: {
      'vue/no-restricted-html-elements': [
        'error',
        ...['button', 'input', 'select', 'textarea', 'details', 'dialog'].map((element) => ({
          element,
          message: `Use the wrapper in components/ instead of <${element}>, or say in the comment that turns this off why it is our own.`,
        })),
      ],
    },
  },
  {
    files: ['**/*.ts', '**/*.vue', '**/*.mjs', '**/*.js'],
    plugins: { sphalerite: { meta: RULES_VERSION, rules: { floors } } },
    rules: {
      'sphalerite/floors': 'error',
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      'no-console': ['error', { allow: ['error'] }],
      eqeqeq: 'error',
      'prefer-const': 'error',
      'vue/multi-word-component-names': 'off',
    },
  },
  // A function that needs more than a screen or two is several functions.
  {
    files: ['{core,app,server,cli}/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { 'max-lines-per-function': ['error', 130] },
  },
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  {
    files: ['cli/**', 'server/**', 'content/**', 'scripts/**', 'benchmarks/**', 'cli/bin/**'],
    rules: { 'no-console': 'off' },
  },
);
