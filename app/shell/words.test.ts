import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { JOINTS, MADE, PROCESSES } from '#core/card/kinds';
import { emptyPattern } from '#core/card/kinds';
import {
  CAUTION_WORDS,
  JOINT_WORDS,
  LIE_WORDS,
  MADE_WORDS,
  PROCESS_WORDS,
  lengthProblem,
  problemSentence,
} from './words';

/** Every file of the core that ships, as text. */
function* coreFiles(folder = 'core'): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* coreFiles(path);
    else if (/\.ts$/.test(entry.name) && !/\.(test|arbitrary)\.ts$/.test(entry.name))
      yield readFileSync(path, 'utf8');
  }
}

test('whatever the core can refuse or warn of has a sentence that says what to do', () => {
  const codes = new Set<string>();
  for (const text of coreFiles()) {
    for (const [, code] of text.matchAll(/code: '([a-z-]+)'/g)) codes.add(code!);
    for (const [, code] of text.matchAll(/(?:stop|care)\('([a-z-]+)'/g)) codes.add(code!);
  }
  expect(codes.size).toBeGreaterThan(30);
  const show = (mm: number) => `${mm} mm`;
  for (const code of codes) {
    if (code.startsWith('length-') && code !== 'length-not-positive') {
      expect(lengthProblem({ code })).toMatch(/\.$/);
      continue;
    }
    const said = problemSentence({ code, about: ['one', 'other'], numbers: {} }, emptyPattern(), show);
    expect(`${code}: ${said}`).not.toMatch(/Something is wrong/);
    expect(said).toMatch(/^[A-Z0-9“].*[.)]$/s);
  }
});

test('every kind of joint, process, card, lie and caution has its word', () => {
  for (const kind of JOINTS) expect(JOINT_WORDS[kind].length).toBeGreaterThan(2);
  for (const process of PROCESSES) expect(PROCESS_WORDS[process].length).toBeGreaterThan(1);
  for (const made of MADE) expect(MADE_WORDS[made].long).toMatch(/Card lay on the (out|in)side/);
  for (const said of Object.values(LIE_WORDS)) expect(said.length).toBeGreaterThan(6);
  for (const { title, text } of Object.values(CAUTION_WORDS)) {
    expect(title.length).toBeGreaterThan(5);
    // What, why, and whom to ask or what to do: two lines at most.
    expect(text.length).toBeLessThan(190);
  }
});
