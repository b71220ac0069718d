/**
 * The arrows of the architecture point down: a room knows only rooms that stand before it in these
 * lists, and no file or folder knows itself by way of another. `npm run lint` runs it;
 * docs/decisions/0013 says why it is not ESLint.
 */
import { readdirSync } from 'node:fs';
import { join } from 'node:path';

const CORE = [
  'solve',
  'measure',
  'metal',
  'surface',
  'card',
  'machine',
  'blank',
  'picture',
  'survey',
  'sheet',
  'shape',
  'cutdown',
  'fit',
  'weld',
  'joint',
  'format',
];
const SHARED = [
  'workers',
  'records',
  'frame',
  'access',
  'forms',
  'drawing',
  'pictures',
  'piece',
  'joint',
  'folding',
];
const PAGES = [
  'survey',
  'card',
  'blank',
  'sheet',
  'shape',
  'cutdown',
  'fit',
  'weld',
  'record',
  'jobs',
  'shop',
  'people',
];

/** A room that stands in no list would have no rule: said before anything is looked at. */
const roomsOf = (root) =>
  readdirSync(join(import.meta.dirname, root), { withFileTypes: true })
    .filter((one) => one.isDirectory())
    .map(({ name }) => name);
for (const [root, known] of [
  ['core', CORE],
  ['app', [...SHARED, ...PAGES]],
]) {
  const found = roomsOf(root);
  const odd = [
    ...found.filter((room) => !known.includes(room)),
    ...known.filter((room) => !found.includes(room)),
  ];
  if (odd.length > 0)
    throw new Error(`dependency-cruiser: ${root} and its list differ in ${odd.join(', ')}.`);
}

const rule = (name, comment, from, to) => ({ name, comment, severity: 'error', from, to });
const any = (root, rooms) => `^${root}/(${rooms.join('|')})/`;
const inOrder = (root, rooms) =>
  rooms
    .map((room, i) => [room, rooms.slice(i + 1)])
    .filter(([, later]) => later.length > 0)
    .map(([room, later]) =>
      rule(
        `${root}-${room}`,
        `${root}/${room} may know only: ${rooms.slice(0, rooms.indexOf(room)).join(', ') || 'itself'}.`,
        { path: any(root, [room]) },
        { path: any(root, later) },
      ),
    );

export default {
  forbidden: [
    rule('no-cycle', 'No file knows itself by way of another.', {}, { circular: true }),
    {
      ...rule(
        'no-cycle-between-folders',
        'No folder knows itself by way of another.',
        {},
        { circular: true },
      ),
      scope: 'folder',
    },
    ...inOrder('core', CORE),
    rule(
      'core-blank-knows-no-maker',
      'What every blank has knows none of its makers.',
      { path: '^core/blank/[^/]+\\.ts$' },
      { path: '^core/blank/[^/]+/' },
    ),
    rule(
      'core-knows-only-zod',
      'The core knows no interface, no Node.js, no database: only zod and its own rooms.',
      { path: '^core/' },
      { pathNot: ['^core/', '(^|/)node_modules/zod/'] },
    ),
    ...inOrder('app', SHARED),
    rule(
      'app-shared-knows-no-page',
      'What pages share knows no page.',
      { path: any('app', SHARED) },
      { path: any('app', PAGES) },
    ),
    rule(
      'app-page-knows-no-other',
      'A page never imports another page: move what they share to piece, drawing, forms, frame, records or core.',
      { path: '^app/([^/]+)/', pathNot: any('app', SHARED) },
      { path: any('app', PAGES), pathNot: '^app/$1/' },
    ),
  ],
  options: {
    exclude: { path: ['^\\.react-router', '\\+types', '\\.(test|arbitrary)\\.tsx?$'] },
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
  },
};
