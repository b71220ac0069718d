import sharp from 'sharp';
import { PerspectiveCamera, Vector3 } from 'three';
import type { Segment } from '../measure/segment';
import type { Vec } from '../measure/vector';
import type { Picture } from './picture';

/**
 * A scene on a bench, drawn by librsvg and looked at through a camera of three.js: nothing of it is
 * reckoned by what is tested.
 */
export type Scene = {
  /** Where the drawing lies on the plane, mm: x0, y0, x1, y1. */
  box: readonly [number, number, number, number];
  bench: 'wood' | 'dark' | 'green' | 'gray';
  /** SVG in mm, y up. */
  drawn: string;
};
export type Shot = {
  width: number;
  height: number;
  /** Off straight above, degrees, and which way round. */
  tiltDeg: number;
  aroundDeg: number;
  /** How the camera is rolled about its own axis. */
  rollDeg?: number;
  /** The lens's first radial term: relative displacement outward at the corner. */
  barrel?: number;
  /** How much darker the far side is, 0 to 1. */
  fades?: number;
  /**
   * A hard shadow: a slanting one from there on, as a share of the width, or how deep it is at a
   * place of the drawing (both 0 to 1), 0 to 1.
   */
  shadow?: number | ((x: number, y: number) => number);
  noise?: number;
  seed?: number;
};

const BENCHES: Record<Scene['bench'], string> = {
  wood: `<filter id="b" x="0" y="0" width="1" height="1"><feTurbulence type="fractalNoise" baseFrequency="0.012 0.3" numOctaves="4" seed="7"/>
    <feColorMatrix values="0.28 0 0 0 0.42  0.24 0 0 0 0.27  0.16 0 0 0 0.14  0 0 0 0 1"/></filter>`,
  dark: `<filter id="b" x="0" y="0" width="1" height="1"><feTurbulence type="fractalNoise" baseFrequency="0.2" numOctaves="3" seed="3"/>
    <feColorMatrix values="0.1 0 0 0 0.1  0.1 0 0 0 0.11  0.1 0 0 0 0.13  0 0 0 0 1"/></filter>`,
  green: `<filter id="b" x="0" y="0" width="1" height="1"><feTurbulence type="fractalNoise" baseFrequency="0.05" numOctaves="3" seed="5"/>
    <feColorMatrix values="0.1 0 0 0 0.15  0.1 0 0 0 0.32  0.1 0 0 0 0.22  0 0 0 0 1"/></filter>`,
  gray: `<filter id="b" x="0" y="0" width="1" height="1"><feTurbulence type="fractalNoise" baseFrequency="0.1" numOctaves="3" seed="9"/>
    <feColorMatrix values="0.12 0 0 0 0.34  0.12 0 0 0 0.34  0.12 0 0 0 0.36  0 0 0 0 1"/></filter>`,
};

/** A path of lines and arcs as SVG. */
export const svgPath = (path: readonly Segment[]): string =>
  `M${path[0]!.a.join(' ')}` +
  path
    .map(({ a, b, bulge }) => {
      if (bulge === 0) return `L${b.join(' ')}`;
      const sweep = 4 * Math.atan(bulge);
      const radius = Math.hypot(b[0] - a[0], b[1] - a[1]) / 2 / Math.abs(Math.sin(sweep / 2));
      return `A${radius} ${radius} 0 ${Math.abs(sweep) > Math.PI ? 1 : 0} ${bulge > 0 ? 1 : 0} ${b.join(' ')}`;
    })
    .join('') +
  'Z';

export const svgPolygons = (polygons: readonly (readonly Vec[])[], fill: string): string =>
  polygons
    .map((p) => `<polygon fill="${fill}" points="${p.map((q) => q.join(',')).join(' ')}"/>`)
    .join('');

export const svgBox = (x: number, y: number, w: number, h: number, fill: string): string =>
  `<rect x="${x}" y="${y}" width="${w}" height="${h}" fill="${fill}"/>`;

/** A photograph of a scene. */
export async function photographed({ box, bench, drawn }: Scene, shot: Shot): Promise<Picture> {
  const [w, h] = [box[2] - box[0], box[3] - box[1]];
  const svg = (perMm: number, inside: string) =>
    sharp(
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="${w * perMm}" height="${h * perMm}" viewBox="0 0 ${w} ${h}">${inside}</svg>`,
      ),
      { unlimited: true },
    )
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true })
      .then(({ data, info }) => ({ data, width: info.width, height: info.height }));
  const below = await svg(
    1.5,
    `<defs>${BENCHES[bench]}</defs><rect width="${w}" height="${h}" filter="url(#b)"/>`,
  );
  const above = await svg(
    Math.min(8, 4000 / Math.max(w, h)),
    `<g transform="translate(${-box[0]} ${box[3]}) scale(1 -1)">${drawn}</g>`,
  );
  return looked([below, above], box, shot);
}

type Layer = { data: Buffer; width: number; height: number };

function looked([below, above]: [Layer, Layer], box: Scene['box'], shot: Shot): Picture {
  const {
    width,
    height,
    tiltDeg,
    aroundDeg,
    rollDeg = 0,
    barrel = 0,
    fades = 0,
    shadow = 2,
    noise = 0,
    seed = 1,
  } = shot;
  const [x0, y0, x1, y1] = box;
  const middle = new Vector3((x0 + x1) / 2, (y0 + y1) / 2, 0);
  const camera = new PerspectiveCamera(55, width / height, 1, 1e5);
  const rad = Math.PI / 180;
  const far =
    (Math.max((x1 - x0) * (height / width), y1 - y0) / 2 / Math.tan((55 / 2) * rad)) *
    (0.98 + 0.25 * Math.sin(tiltDeg * rad));
  const off = new Vector3(
    Math.sin(tiltDeg * rad) * Math.cos(aroundDeg * rad),
    Math.sin(tiltDeg * rad) * Math.sin(aroundDeg * rad),
    Math.cos(tiltDeg * rad),
  );
  camera.position.copy(middle).addScaledVector(off, far);
  camera.up.set(Math.sin(rollDeg * rad), Math.cos(rollDeg * rad), 0);
  camera.lookAt(middle);
  camera.updateMatrixWorld();
  camera.updateProjectionMatrix();
  // Rays are even across the picture: from three of them all are known.
  const eye = camera.position;
  const rayAt = (u: number, v: number) => new Vector3(u, v, 0.5).unproject(camera).sub(eye);
  const [o, across, up] = [rayAt(0, 0), rayAt(1, 0), rayAt(0, 1)];
  across.sub(o);
  up.sub(o);
  const data = new Uint8ClampedArray(width * height * 4).fill(255);
  const half2 = (width * width + height * height) / 4;
  const chance = chances(seed);
  const grid = 2;
  for (let v = 0; v < height; v++)
    for (let u = 0; u < width; u++) {
      let [r, g, b] = [0, 0, 0];
      for (let s = 0; s < grid * grid; s++) {
        const p = u + (0.5 + (s % grid)) / grid - width / 2;
        const q = v + (0.5 + Math.floor(s / grid)) / grid - height / 2;
        // Barrel: the factor by which this place lies further out without the lens.
        const by = 1 + (barrel * (p * p + q * q)) / half2;
        const i = (2 * p * by) / width;
        const j = (-2 * q * by) / height;
        const t = -eye.z / (o.z + across.z * i + up.z * j);
        const x = (eye.x + (o.x + across.x * i + up.x * j) * t - x0) / (x1 - x0);
        const y = (y1 - (eye.y + (o.y + across.y * i + up.y * j) * t)) / (y1 - y0);
        const shade =
          typeof shadow === 'number' ? Number(x + 0.2 * (1 - y) > shadow) : shadow(x, y);
        const light = (1 - fades * x) * (1 - 0.38 * shade);
        const on = pixelOf(above, x, y);
        const under = pixelOf(below, x, y);
        const share = above.data[on + 3]! / 255;
        r += light * (above.data[on]! * share + below.data[under]! * (1 - share));
        g += light * (above.data[on + 1]! * share + below.data[under + 1]! * (1 - share));
        b += light * (above.data[on + 2]! * share + below.data[under + 2]! * (1 - share));
      }
      const gauss = 4 + (chance() + chance() + chance() - 1.5) * 2 * noise;
      const k = (v * width + u) * 4;
      data[k] = (r / 4) * 0.96 + gauss;
      data[k + 1] = (g / 4) * 0.96 + gauss;
      data[k + 2] = (b / 4) * 0.96 + gauss;
    }
  return { width, height, data };
}

const pixelOf = ({ width, height }: Layer, x: number, y: number): number =>
  4 *
  (Math.min(height - 1, Math.max(0, Math.floor(y * height))) * width +
    Math.min(width - 1, Math.max(0, Math.floor(x * width))));

/** Figures from 0 to 1 that come the same each time (Park & Miller). */
function chances(seed: number): () => number {
  let now = seed * 7919 + 1;
  return () => (now = (now * 48271) % 2147483647) / 2147483647;
}

/** A scene as a flat-bed scanner sees it. */
export async function lookThrough({ box, drawn }: Scene, dpi: number): Promise<Picture> {
  const [w, h] = [box[2] - box[0], box[3] - box[1]];
  const [width, height] = [Math.round((w * dpi) / 25.4), Math.round((h * dpi) / 25.4)];
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${w} ${h}">
    <g transform="translate(${-box[0]} ${box[3]}) scale(1 -1)">${drawn}</g></svg>`;
  const { data } = await sharp(Buffer.from(svg))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width, height, data };
}
