import { newJoint, newPart } from './joint';
import type { StructureFile } from './structure';

/** What an edge was said to meet in a word, in older plans. */
export type EdgeWord = { edge: string; word: string };

/**
 * The named parts and joints that words of older plans stand for: a part for each distinct word of
 * the job, and a joint for each edge. `pieces`: the words of each piece, in the order of the file;
 * `at`: when they are said to have been written, ISO 8601.
 */
export function structureOfWords(
  pieces: readonly (readonly EdgeWord[])[],
  at: string,
): StructureFile[] {
  const words = new Map<string, string>();
  const joints: StructureFile[] = [];
  for (const [piece, said] of pieces.entries()) {
    for (const { edge, word } of said) {
      const name = word.trim();
      if (name === '') continue;
      const part = words.get(name) ?? `part${words.size + 1}`;
      words.set(name, part);
      const body = newJoint({ piece, edge, turned: false, stretch: null }, { part });
      joints.push({ id: `joint${joints.length + 1}`, at, body });
    }
  }
  const parts = [...words].map(([name, id]): StructureFile => ({ id, at, body: newPart(name) }));
  return [...parts, ...joints];
}
