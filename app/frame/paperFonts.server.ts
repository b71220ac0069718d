import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inflateSync } from 'node:zlib';

/** A table of a font file: its tag, checksum, and bytes. */
type Table = { tag: Buffer; checksum: number; bytes: Buffer };

/**
 * The plain font (SFNT) in a WOFF 1 file, whose tables are each packed by themselves (W3C WOFF File
 * Format 1.0, sections 3 to 5). A PDF that unpacked them anew for every document spent most of its
 * time on that.
 */
export function unpackedFont(woff: Buffer): Buffer {
  if (woff.toString('latin1', 0, 4) !== 'wOFF') throw new Error('not a WOFF 1 font');
  const flavor = woff.readUInt32BE(4);
  const count = woff.readUInt16BE(12);
  const tables = Array.from({ length: count }, (_, i): Table => {
    const at = 44 + 20 * i;
    const [offset, packed, length] = [
      woff.readUInt32BE(at + 4),
      woff.readUInt32BE(at + 8),
      woff.readUInt32BE(at + 12),
    ];
    const body = woff.subarray(offset, offset + packed);
    return {
      tag: woff.subarray(at, at + 4),
      checksum: woff.readUInt32BE(at + 16),
      bytes: packed < length ? inflateSync(body) : Buffer.from(body),
    };
  });

  const padded = (length: number) => (length + 3) & ~3;
  const headBytes = 12 + 16 * count;
  const font = Buffer.alloc(
    headBytes + tables.reduce((sum, { bytes }) => sum + padded(bytes.length), 0),
  );
  // The header of an SFNT helps to search the table list by halves.
  const power = Math.floor(Math.log2(count));
  font.writeUInt32BE(flavor, 0);
  font.writeUInt16BE(count, 4);
  font.writeUInt16BE(16 * 2 ** power, 6);
  font.writeUInt16BE(power, 8);
  font.writeUInt16BE(16 * count - 16 * 2 ** power, 10);
  let offset = headBytes;
  tables.forEach(({ tag, checksum, bytes }, i) => {
    const at = 12 + 16 * i;
    tag.copy(font, at);
    font.writeUInt32BE(checksum, at + 4);
    font.writeUInt32BE(offset, at + 8);
    font.writeUInt32BE(bytes.length, at + 12);
    bytes.copy(font, offset);
    offset += padded(bytes.length);
  });
  return font;
}

const known = new Map<string, string>();
let folder = '';

/**
 * A font that ships with the application as a file that a PDF takes as it is, unpacked once for the
 * life of the server. A file, because the PDF library knows again only fonts that have a name: from
 * memory it would read one anew for every cell of a table. `name` is the font's file without
 * ending, in @fontsource.
 */
export function shippedFont(name: string): string {
  let file = known.get(name);
  if (!file) {
    if (folder === '') {
      folder = mkdtempSync(join(tmpdir(), 'patrone-fonts-'));
      process.once('exit', () => rmSync(folder, { recursive: true, force: true }));
    }
    file = join(folder, `${name.replace(/\W/g, '-')}.ttf`);
    writeFileSync(
      file,
      unpackedFont(
        readFileSync(createRequire(import.meta.url).resolve(`@fontsource/${name}.woff`)),
      ),
    );
    known.set(name, file);
  }
  return file;
}
