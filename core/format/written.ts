/** As many characters as stand on one line of a file, its indent not counted. */
const WIDE = 100;

/**
 * JSON as a file that people can read and compare: indented by two, but what fits on a line stands
 * on one, and lists of numbers and places fill their lines. The same value gives the same text.
 * What JSON has no word for is left out of objects and null in lists, as `JSON.stringify` does.
 */
export function written(value: unknown, indent = ''): string {
  if (value === null || typeof value !== 'object') return JSON.stringify(value) ?? 'null';
  const inner = `${indent}  `;
  if (!Array.isArray(value)) {
    const members = Object.entries(value)
      .filter(([, member]) => member !== undefined)
      .map(([name, member]) => `${JSON.stringify(name)}: ${written(member, inner)}`);
    return (
      onOneLine(members, '{ ', ' }') ?? `{\n${inner}${members.join(`,\n${inner}`)}\n${indent}}`
    );
  }
  const items = value.map((item) => written(item ?? null, inner));
  return (
    onOneLine(items, '[', ']') ?? `[\n${inner}${filled(items).join(`,\n${inner}`)}\n${indent}]`
  );
}

/** Parts on one line; null where they do not go on one. */
function onOneLine(parts: readonly string[], open: string, close: string): string | null {
  if (parts.length === 0) return (open + close).replaceAll(' ', '');
  const wide = parts.reduce((sum, part) => sum + part.length + 2, 0);
  return wide > WIDE || parts.some(isLong) ? null : `${open}${parts.join(', ')}${close}`;
}

/** Items of a list in lines, as many on each as it takes. */
function filled(items: readonly string[]): string[] {
  const lines: string[] = [];
  for (const item of items) {
    const last = lines.at(-1);
    const isAlone =
      last === undefined ||
      isLong(item) ||
      isLong(last) ||
      item.startsWith('{') ||
      last.length + item.length + 2 > WIDE;
    if (isAlone) lines.push(item);
    else lines[lines.length - 1] = `${last}, ${item}`;
  }
  return lines;
}

const isLong = (part: string): boolean => part.includes('\n');
