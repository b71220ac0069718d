/** The kinds of picture that are taken in. */
export type PictureType = 'jpeg' | 'png' | 'webp';

const startsWith = (bytes: Uint8Array, text: string, at = 0): boolean =>
  [...text].every((c, i) => bytes[at + i] === c.charCodeAt(0));

/** What kind of picture bytes are, by how they begin; null for none that is taken in. */
export function pictureType(bytes: Uint8Array): PictureType | null {
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return 'jpeg';
  if (startsWith(bytes, '\x89PNG\r\n\x1a\n')) return 'png';
  if (startsWith(bytes, 'RIFF') && startsWith(bytes, 'WEBP', 8)) return 'webp';
  return null;
}

/**
 * A picture as phones store it when not told otherwise (HEIC, AVIF): known by its name, to say what
 * to do about it.
 */
export const isHeif = (bytes: Uint8Array): boolean =>
  startsWith(bytes, 'ftyp', 4) &&
  ['heic', 'heix', 'mif1', 'msf1', 'avif', 'heim', 'hevc'].some((brand) =>
    startsWith(bytes, brand, 8),
  );

/**
 * A picture without anything that is not picture: place, maker, owner, remarks, thumbnails, and
 * whatever was hung on behind. Not a pixel is touched. Of a JPEG's particulars only the way it is
 * turned (`orientation`, 1 to 8 as in EXIF) is put back; colours keep their profile. Null where the
 * bytes do not hang together as the kind of picture they begin as.
 *
 * Source: ITU-T T.81 annex B (JPEG), W3C PNG, the WebP container specification.
 */
export function withoutPrivate(
  bytes: Uint8Array,
  type: PictureType,
  orientation = 1,
): Uint8Array | null {
  if (type === 'jpeg') return cleanJpeg(bytes, orientation);
  return type === 'png' ? cleanPng(bytes) : cleanWebp(bytes);
}

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

const be16 = (bytes: Uint8Array, at: number): number => (bytes[at]! << 8) | bytes[at + 1]!;
const be32 = (bytes: Uint8Array, at: number): number =>
  be16(bytes, at) * 65_536 + be16(bytes, at + 2);
const le32 = (bytes: Uint8Array, at: number): number =>
  bytes[at]! + bytes[at + 1]! * 256 + bytes[at + 2]! * 65_536 + bytes[at + 3]! * 16_777_216;

/** EXIF with the one entry 0x0112, how the picture is turned. */
const turnedSo = (orientation: number): Uint8Array =>
  Uint8Array.from([
    0xff,
    0xe1,
    0,
    34,
    0x45,
    0x78,
    0x69,
    0x66,
    0,
    0,
    0x4d,
    0x4d,
    0,
    0x2a,
    0,
    0,
    0,
    8,
    0,
    1,
    0x01,
    0x12,
    0,
    3,
    0,
    0,
    0,
    1,
    0,
    orientation,
    0,
    0,
    0,
    0,
    0,
    0,
  ]);

const [SOI, EOI, SOS, APP0, APP2, APP14, APP15, COM] = [
  0xd8, 0xd9, 0xda, 0xe0, 0xe2, 0xee, 0xef, 0xfe,
];

/**
 * Of the segments that programs may use as they like: JFIF, a colour profile, and Adobe's word on
 * colours stay.
 */
function stays(bytes: Uint8Array, marker: number, at: number): boolean {
  if (marker === COM) return false;
  if (marker < APP0 || marker > APP15) return true;
  if (marker === APP0) return startsWith(bytes, 'JFIF\0', at);
  return marker === APP2
    ? startsWith(bytes, 'ICC_PROFILE\0', at)
    : marker === APP14 && startsWith(bytes, 'Adobe', at);
}

function cleanJpeg(bytes: Uint8Array, orientation: number): Uint8Array | null {
  const parts: Uint8Array[] = [Uint8Array.from([0xff, SOI])];
  if (orientation > 1 && orientation <= 8) parts.push(turnedSo(orientation));
  let at = 2;
  for (;;) {
    // Any number of FF may stand before a marker.
    while (bytes[at] === 0xff && bytes[at + 1] === 0xff) at++;
    const marker = bytes[at + 1];
    if (bytes[at] !== 0xff || marker === undefined) return null;
    if (marker === EOI) return joined([...parts, Uint8Array.from([0xff, EOI])]);
    const length = be16(bytes, at + 2);
    let end = at + 2 + length;
    if (length < 2 || end > bytes.length) return null;
    // After the start of a scan come its bytes, up to the next marker that is not part of them.
    if (marker === SOS) {
      while (
        end + 1 < bytes.length &&
        !(bytes[end] === 0xff && bytes[end + 1] !== 0 && !isRestart(bytes[end + 1]!))
      )
        end++;
      if (end + 1 >= bytes.length) return null;
    }
    if (stays(bytes, marker, at + 4)) parts.push(bytes.subarray(at, end));
    at = end;
  }
}
const isRestart = (marker: number): boolean => marker >= 0xd0 && marker <= 0xd7;

/** What a PNG needs to be seen as it was meant; words, times and places are not among it. */
const PNG_STAYS = new Set(
  'IHDR PLTE IDAT IEND tRNS cHRM gAMA iCCP sBIT sRGB cICP pHYs bKGD acTL fcTL fdAT'.split(' '),
);

function cleanPng(bytes: Uint8Array): Uint8Array | null {
  const parts = [bytes.subarray(0, 8)];
  for (let at = 8; at + 12 <= bytes.length;) {
    const name = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    const end = at + 12 + be32(bytes, at);
    if (end > bytes.length) return null;
    if (PNG_STAYS.has(name)) parts.push(bytes.subarray(at, end));
    if (name === 'IEND') return joined(parts);
    at = end;
  }
  return null;
}

const WEBP_STAYS = new Set(['VP8 ', 'VP8L', 'VP8X', 'ALPH', 'ANIM', 'ANMF', 'ICCP']);
/** In the extended header: that there is EXIF, and that there is XMP. */
const [HAS_EXIF, HAS_XMP] = [0x08, 0x04];

function cleanWebp(bytes: Uint8Array): Uint8Array | null {
  const parts: Uint8Array[] = [];
  const whole = Math.min(bytes.length, 8 + le32(bytes, 4));
  for (let at = 12; at + 8 <= whole;) {
    const name = String.fromCharCode(...bytes.subarray(at, at + 4));
    const size = le32(bytes, at + 4);
    const end = at + 8 + size + (size % 2);
    if (end > whole + 1) return null;
    if (WEBP_STAYS.has(name)) {
      const part = Uint8Array.from(bytes.subarray(at, Math.min(end, bytes.length)));
      if (name === 'VP8X') part[8]! &= ~(HAS_EXIF | HAS_XMP);
      parts.push(part);
    }
    at = end;
  }
  if (parts.length === 0) return null;
  const body = joined(parts);
  const size = body.length + 4;
  const head = [
    0x52,
    0x49,
    0x46,
    0x46,
    size & 255,
    (size >> 8) & 255,
    (size >> 16) & 255,
    (size >> 24) & 255,
    0x57,
    0x45,
    0x42,
    0x50,
  ];
  return joined([Uint8Array.from(head), body]);
}
