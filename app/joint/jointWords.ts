import type { Condition, Fastened, Reach, Sight } from '#core/joint/kinds';

/** The bench's words for the facts of parts, joints and hollows. */

export const CONDITION_WORDS: Record<Condition, string> = {
  unknown: 'Nobody has looked',
  sound: 'Sound',
  thinned: 'Thinned',
  rusted: 'Rusted through in places',
  crushed: 'Crushed or bent',
};

export const FASTENED_WORDS: Record<Fastened, string> = {
  hemmed: 'The skin hemmed round its frame',
  bolts: 'Bolted',
  rivets: 'Riveted',
};

export const REACH_WORDS: Record<Reach, string> = {
  both: 'From both sides',
  outside: 'Only from outside',
  inside: 'Only from inside',
};

export const SIGHT_WORDS: Record<Sight, string> = {
  seen: 'Seen when it is done',
  hidden: 'Hidden when it is done',
};

/** What the fields are called, where two pages differ about one. */
export const STRUCTURE_WORDS: Record<string, string> = {
  name: 'Name',
  metal: 'Metal',
  thicknessMm: 'Thickness',
  readingsMm: 'Micrometer readings',
  condition: 'Condition',
  first: 'Its first end',
  second: 'What it meets',
  sameWay: 'Which way the edges run',
  fastened: 'How it is fastened',
  over: 'Which lies over',
  stepped: 'Which is stepped',
  waterFrom: 'Where water comes from',
  reach: 'What can be reached',
  structural: 'Structural',
  sight: 'Seen or hidden',
  bounds: 'What bounds it',
  notes: 'Notes',
  putAway: 'Put away',
};
