import { existsSync } from 'node:fs';
import { PIECE_PAGES } from '../access/addresses';
import { PIECE_KINDS } from '#core/format/lists';
import { STOPS, opensAt, stopAt, stopsOf } from './stops';

test('each stop has a key and a page of its own, is among the addresses, and is found by its address', () => {
  for (const kind of PIECE_KINDS) {
    const keys = stopsOf(kind).map(({ key }) => key);
    expect(keys).toEqual([...new Set(keys)].sort((a, b) => a - b));
    expect(stopsOf(kind).map(({ id }) => id)).toContain(opensAt(kind));
  }
  for (const stop of STOPS) {
    const page = PIECE_PAGES.find(({ path }) => path === stop.id);
    expect(existsSync(`app/${page?.file}`)).toBe(true);
    expect(stopAt(`/pieces/p/${stop.id}`)).toBe(stop);
  }
  expect(stopAt('/pieces/p/card/profiles')).toBeUndefined();
});

test('every address has its file', () => {
  for (const { file } of PIECE_PAGES) expect(existsSync(`app/${file}`)).toBe(true);
});
