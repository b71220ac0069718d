import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import { shippedFont, unpackedFont } from './paperFonts.server';

const FILES = [
  'barlow/files/barlow-latin-500-normal',
  'barlow-condensed/files/barlow-condensed-latin-600-normal',
];
const packed = (name: string) =>
  readFileSync(createRequire(import.meta.url).resolve(`@fontsource/${name}.woff`));

test('an unpacked font is as large as the packed one says, its tables add up to their checksums, and it sets the same text', () => {
  for (const name of FILES) {
    const woff = packed(name);
    const font = unpackedFont(woff);
    expect(font.length).toBe(woff.readUInt32BE(16));
    // OpenType: the sum of a table's big-endian words; of `head` without its own adjustment.
    const count = font.readUInt16BE(4);
    for (let i = 0; i < count; i++) {
      const at = 12 + 16 * i;
      const [offset, length] = [font.readUInt32BE(at + 8), font.readUInt32BE(at + 12)];
      let sum = 0;
      for (let k = 0; k < length; k += 4) {
        if (font.toString('latin1', at, at + 4) === 'head' && k === 8) continue;
        sum = (sum + font.readUInt32BE(offset + k)) >>> 0;
      }
      expect(sum).toBe(font.readUInt32BE(at + 4));
    }
    const width = (src: Buffer) =>
      new PDFDocument()
        .registerFont('f', src)
        .font('f')
        .fontSize(40)
        .widthOfString('Brake line 78.20 µ½');
    expect(width(font)).toBe(width(woff));
    expect(readFileSync(shippedFont(name))).toEqual(font);
  }
  expect(() => unpackedFont(Buffer.from('OTTO, say'))).toThrow('not a WOFF');
});
