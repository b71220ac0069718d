import sharp from 'sharp';
import { isHeif, pictureType, withoutPrivate } from './privacy';

/**
 * Files made and read by sharp (libvips, libexif), which knows nothing of how they are cleaned
 * here.
 */
const noise = (width: number, height: number) =>
  sharp(
    Buffer.from(
      Array.from({ length: width * height * 3 }, (_, i) => (i * 7919 + (i >> 3) * 31) % 256),
    ),
    { raw: { width, height, channels: 3 } },
  );
const PRIVATE = {
  IFD0: { Make: 'Secret camera', Artist: 'Nobody', ImageDescription: 'the yard' },
  IFD2: { DateTimeOriginal: '2026:10:01 09:40:00', UserComment: 'private' },
  IFD3: { GPSLatitude: '51/1 30/1 0/1', GPSLatitudeRef: 'N' },
};
const XMP =
  '<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"/></x:xmpmeta>';
const made = {
  jpeg: (orientation: number) =>
    noise(61, 40).withExif(PRIVATE).withMetadata({ orientation }).withXmp(XMP).jpeg().toBuffer(),
  progressive: () => noise(61, 40).withExif(PRIVATE).jpeg({ progressive: true }).toBuffer(),
  png: () => noise(61, 40).withExif(PRIVATE).withXmp(XMP).png().toBuffer(),
  webp: () => noise(61, 40).withExif(PRIVATE).withXmp(XMP).webp({ lossless: true }).toBuffer(),
};
const clean = (bytes: Uint8Array, orientation = 1): Buffer => {
  const found = withoutPrivate(bytes, pictureType(bytes)!, orientation);
  if (!found) throw new Error('damaged');
  return Buffer.from(found);
};
const pixels = (bytes: Uint8Array) => sharp(bytes).raw().toBuffer();

test.each(['progressive', 'png', 'webp'] as const)(
  '%s: nothing private stays, and not a pixel is changed',
  async (kind) => {
    const given = await made[kind]();
    expect((await sharp(given).metadata()).exif).toBeDefined();
    const kept = clean(given);
    const { exif, xmp, iptc } = await sharp(kept).metadata();
    expect({ exif, xmp, iptc }).toEqual({ exif: undefined, xmp: undefined, iptc: undefined });
    expect(kept.includes('Secret')).toBe(false);
    expect(kept.includes('Nobody')).toBe(false);
    expect(await pixels(kept)).toEqual(await pixels(given));
    // Cleaned again it is the same: the same picture has the same name.
    expect(clean(kept)).toEqual(kept);
  },
);

test.each([1, 2, 3, 4, 5, 6, 7, 8])(
  'a JPEG turned by %i is shown turned so, and says nothing else',
  async (orientation) => {
    const given = await made.jpeg(orientation);
    const kept = clean(given, orientation);
    const found = await sharp(kept).metadata();
    expect(found.orientation ?? 1).toBe(orientation);
    expect(found.xmp).toBeUndefined();
    expect(kept.includes('Secret')).toBe(false);
    const upright = (bytes: Uint8Array) => sharp(bytes).autoOrient().raw().toBuffer();
    expect(await upright(kept)).toEqual(await upright(given));
  },
);

test('colours keep their profile; what is hung on behind the picture is cut off', async () => {
  const given = await noise(20, 20).withIccProfile('p3').jpeg().toBuffer();
  const kept = clean(Buffer.concat([given, Buffer.from('a film with a voice in it')]));
  expect((await sharp(kept).metadata()).icc).toEqual((await sharp(given).metadata()).icc);
  expect(kept.includes('voice')).toBe(false);
});

test('what is no picture, or not all of one, is known', async () => {
  expect(pictureType(Buffer.from('GIF89a'))).toBeNull();
  expect(pictureType(new Uint8Array())).toBeNull();
  expect(isHeif(Buffer.from('\0\0\0\x18ftypheic\0\0\0\0'))).toBe(true);
  for (const make of [() => made.jpeg(1), made.progressive, made.png, made.webp]) {
    const whole = await make();
    for (const share of [0.2, 0.5, 0.9]) {
      const cut = whole.subarray(0, Math.floor(whole.length * share));
      const found = withoutPrivate(cut, pictureType(cut)!);
      // Whatever comes out of half a picture has nothing private in it either.
      if (found) expect(Buffer.from(found).includes('Secret')).toBe(false);
    }
  }
  const jpeg = await made.jpeg(1);
  expect(withoutPrivate(jpeg.subarray(0, jpeg.length - 40), 'jpeg')).toBeNull();
});
