import { FRAMED, OF_PIECE, OTHERS, PIECE_PAGES, accessTo } from './addresses';

const ALL = [
  ...[...FRAMED, ...OTHERS].map((one) => ({ ...one, pattern: `/${one.path}` })),
  ...PIECE_PAGES.map((one) => ({
    ...one,
    pattern: one.path === '' ? `/${OF_PIECE}` : `/${OF_PIECE}/${one.path}`,
  })),
];

test('every address is declared once, and is what the router’s pattern leads to', () => {
  expect(new Set(ALL.map(({ pattern }) => pattern)).size).toBe(ALL.length);
  // The router’s own patterns have no stroke before them, but that of the first page.
  for (const { pattern, access } of ALL)
    for (const one of [pattern, pattern.replace(/^\/(?=.)/, '')])
      expect(accessTo(one)).toBe(access);
});

test('only how one comes in, and whether the server is well, is for anybody', () => {
  const open = ALL.filter(({ access }) => access.reads === 'anybody').map(({ path }) => path);
  expect(open.sort()).toEqual(
    ['first', 'health', 'join/:code', 'passkey', 'sign-in', 'trust', 'trust/shop.crt'].sort(),
  );
  expect(accessTo('/nowhere').reads).toBe('works');
});

test('whoever looks writes nowhere but how they sign in, and is shown what came of a piece', () => {
  for (const { access, pattern } of ALL) {
    if (access.reads === 'looks') expect(['works', 'runs']).toContain(access.writes);
    if (access.reads === 'looks') expect(pattern).toMatch(/^\/$|^\/(jobs|pieces|pictures)\/:/);
  }
  for (const { path, access } of PIECE_PAGES)
    expect(access.instead?.({ pieceId: 'p' })).toBe(
      path === 'record' ? undefined : '/pieces/p/record',
    );
});
