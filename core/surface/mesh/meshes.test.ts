import fc from 'fast-check';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { PLYLoader } from 'three/examples/jsm/loaders/PLYLoader.js';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { spread } from '../../measure/spread.arbitrary';
import { cleaned } from './clean';
import { discOf } from './disc';
import { readMeshFile } from '../file/meshFile';
import { writeObj } from '../file/obj';
import type { Mesh, Vec3 } from './mesh';
import { meshArea, meshFrom, triangleCount } from './mesh';
import { smoothed, cubicAt } from './smoothing';
import { StationsSchema, stationsMesh } from './stations';
import { meshOf, panels } from './surfaces.arbitrary';

const codeOf = (mesh: Mesh): string => {
  const found = discOf(mesh);
  return found.ok ? 'disc' : found.problems[0]!.code;
};
const square: Vec3[] = [
  [0, 0, 0],
  [1, 0, 0],
  [1, 1, 0],
  [0, 1, 0],
];

test('what is no disc is told by its kind', () => {
  const two = meshFrom(square, [
    [0, 1, 2],
    [0, 2, 3],
  ]);
  expect(codeOf(two)).toBe('disc');
  expect(codeOf(meshFrom([], []))).toBe('mesh-empty');
  expect(codeOf(meshFrom(square, [[0, 1, 7]]))).toBe('mesh-index');
  expect(codeOf(meshFrom([[0, 0, NaN], ...square], [[1, 2, 3]]))).toBe('mesh-number');
  expect(
    codeOf(
      meshFrom(
        [...square, [5, 5, 5]],
        [
          [0, 1, 2],
          [0, 2, 3],
        ],
      ),
    ),
  ).toBe('mesh-loose-points');
  expect(
    codeOf(
      meshFrom(
        [...square, [2, 0, 0]],
        [
          [0, 1, 2],
          [0, 2, 3],
          [0, 1, 4],
        ],
      ),
    ),
  ).toBe('mesh-no-area');
  expect(
    codeOf(
      meshFrom(
        [...square, [0, 0, 1]],
        [
          [0, 1, 2],
          [0, 2, 3],
          [0, 2, 4],
        ],
      ),
    ),
  ).toBe('mesh-edge-shared');
  expect(
    codeOf(
      meshFrom(
        [...square, [2, 1, 1], [2, 2, 0]],
        [
          [0, 1, 2],
          [0, 2, 3],
          [2, 4, 5],
        ],
      ),
    ),
  ).toBe('mesh-parts');
  // Two squares that meet at a corner, joined by a bridge elsewhere: one part, pinched at the
  // corner.
  expect(
    codeOf(
      meshFrom(
        [...square, [2, 1, 0], [2, 2, 0], [2, 0, 1]],
        [
          [0, 1, 2],
          [0, 2, 3],
          [2, 4, 5],
          [4, 1, 6],
        ],
      ),
    ),
  ).not.toBe('disc');
  const ball: [number, number, number][] = [
    [0, 1, 2],
    [0, 3, 1],
    [1, 3, 2],
    [0, 2, 3],
  ];
  const tip = meshFrom(
    [
      [0, 0, 0],
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
    ],
    ball,
  );
  expect(codeOf(tip)).toBe('mesh-closed');
  // A band of squares closed on itself: even a ring with a hole, twisted once a Möbius strip.
  const band = (twisted: boolean): Mesh => {
    const n = 12;
    const vertices: Vec3[] = [];
    for (let i = 0; i < n; i++) {
      const [a, t] = [(2 * Math.PI * i) / n, twisted ? (Math.PI * i) / n : Math.PI / 2];
      for (const side of [-1, 1])
        vertices.push([
          (5 + side * Math.cos(t)) * Math.cos(a),
          (5 + side * Math.cos(t)) * Math.sin(a),
          side * Math.sin(t),
        ]);
    }
    return meshFrom(
      vertices,
      Array.from({ length: n }, (_, i) => {
        const [a, b] = [2 * i, 2 * i + 1];
        const last = i === n - 1;
        const [c, d] = last ? (twisted ? [1, 0] : [0, 1]) : [a + 2, b + 2];
        return [
          [a, c!, d!],
          [a, d!, b],
        ];
      }).flat(),
    );
  };
  expect(codeOf(band(false))).toBe('mesh-holes');
  expect(codeOf(band(true))).toBe('mesh-one-sided');
});

test('a panel spoilt as scanners spoil it comes back whole, and what was done is told', () => {
  fc.assert(
    fc.property(panels, spread(0, 1), fc.boolean(), (figure, where, scattered) => {
      const good = meshOf(figure, 500);
      const area = meshArea(good);
      const count = triangleCount(good);
      const hole = Math.floor(where * (count - 1));
      // Every triangle by itself, with corners off by a hair, some wound wrong, one missing, one
      // twice, and a loose bit.
      const vertices: Vec3[] = [];
      const triangles: number[][] = [];
      for (let t = 0; t < count; t++) {
        if (t === hole) continue;
        const corners = [0, 1, 2].map((k) => {
          const v = 3 * good.triangles[3 * t + k]!;
          const hair = scattered ? Math.sin(t * 31 + k) * 1e-5 : 0;
          return (
            vertices.push([
              good.vertices[v]! + hair,
              good.vertices[v + 1]!,
              good.vertices[v + 2]!,
            ]) - 1
          );
        });
        triangles.push(t % 7 === 0 ? [corners[1]!, corners[0]!, corners[2]!] : corners);
      }
      triangles.push(triangles[5]!, [triangles[9]![0]!, triangles[9]![0]!, triangles[9]![1]!]);
      const bit = vertices.push([2000, 0, 0], [2001, 0, 0], [2000, 1, 0], [NaN, 0, 0]) - 4;
      triangles.push([bit, bit + 1, bit + 2], [bit, bit + 1, bit + 3]);
      const { mesh, ...told } = cleaned(meshFrom(vertices, triangles));
      expect(codeOf(mesh)).toBe('disc');
      // A triangle missing at the rim is no hole.
      expect(Math.abs(meshArea(mesh) / area - 1)).toBeLessThan(told.closed === 1 ? 1e-4 : 0.02);
      expect(told.looseParts).toBe(1);
      expect(told.dropped).toBe(3);
      expect(told.joined).toBeGreaterThan(count);
      expect(told.left).toBe(0);
    }),
    { numRuns: 25 },
  );
});

/** Corner by corner, what a loader of three.js makes of a file. */
type Corners = {
  getAttribute: (name: string) => { array: ArrayLike<number>; count: number };
  index: { array: ArrayLike<number> } | null;
};
const corners = (geometry: Corners): number[] => {
  const { array } = geometry.getAttribute('position');
  const index = geometry.index
    ? Array.from(geometry.index.array)
    : Array.from({ length: array.length / 3 }, (_, i) => i);
  return index.flatMap((v) => [array[3 * v]!, array[3 * v + 1]!, array[3 * v + 2]!]);
};
const ours = (name: string, bytes: Uint8Array): number[] => {
  const read = readMeshFile(name, bytes);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return [...read.mesh.triangles].flatMap((v) => [
    ...read.mesh.vertices.subarray(3 * v, 3 * v + 3),
  ]);
};
const same = (one: number[], other: number[]): void => {
  expect(one.length).toBe(other.length);
  expect(Math.max(...one.map((x, i) => Math.abs(x - other[i]!)))).toBeLessThan(1e-3);
};
const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const buffer = (bytes: Uint8Array): ArrayBuffer => bytes.slice().buffer as ArrayBuffer;

test('OBJ, STL and PLY are read as three.js reads them, text and binary, either way round', () => {
  fc.assert(
    fc.property(panels, fc.integer({ min: 20, max: 200 }), (figure, size) => {
      const mesh = meshOf(figure, size);
      const count = triangleCount(mesh);
      const obj = `# a panel\r\nmtllib none.mtl\no panel\n${writeObj(mesh).replace(/f (\d+) (\d+) (\d+)/g, 'f $1//1 $2/3 $3')}`;
      same(
        ours('a', bytesOf(obj)),
        corners(
          (new OBJLoader().parse(obj).children[0] as unknown as { geometry: Corners }).geometry,
        ),
      );
      const at = (v: number): number[] => [...mesh.vertices.subarray(3 * v, 3 * v + 3)];
      const facets = Array.from(
        { length: count },
        (_, t) =>
          `facet normal 0 0 1\nouter loop\n${[0, 1, 2]
            .map(
              (k) =>
                `vertex ${at(mesh.triangles[3 * t + k]!)
                  .map((x) => x.toExponential(6))
                  .join(' ')}`,
            )
            .join('\n')}\nendloop\nendfacet`,
      );
      const ascii = bytesOf(`solid panel\n${facets.join('\n')}\nendsolid panel\n`);
      same(ours('b', ascii), corners(new STLLoader().parse(buffer(ascii))));
      const binary = new DataView(new ArrayBuffer(84 + 50 * count));
      binary.setUint32(80, count, true);
      for (let t = 0; t < count; t++)
        [0, 1, 2].forEach((k) =>
          at(mesh.triangles[3 * t + k]!).forEach((x, axis) =>
            binary.setFloat32(84 + 50 * t + 12 + 12 * k + 4 * axis, x, true),
          ),
        );
      same(ours('c', new Uint8Array(binary.buffer)), corners(new STLLoader().parse(binary.buffer)));
      const head = (format: string): string =>
        `ply\nformat ${format} 1.0\ncomment of a panel\nelement vertex ${mesh.vertices.length / 3}\nproperty float x\nproperty float y\nproperty float z\nproperty uchar red\nelement face ${count}\nproperty list uchar int vertex_indices\nend_header\n`;
      const text = bytesOf(
        `${head('ascii')}${Array.from({ length: mesh.vertices.length / 3 }, (_, v) => `${at(v).join(' ')} 7`).join('\n')}\n${Array.from({ length: count }, (_, t) => `3 ${mesh.triangles.subarray(3 * t, 3 * t + 3).join(' ')}`).join('\n')}\n`,
      );
      same(ours('d', text), corners(new PLYLoader().parse(buffer(text))));
      for (const little of [true, false]) {
        const header = bytesOf(head(little ? 'binary_little_endian' : 'binary_big_endian'));
        const vertices = mesh.vertices.length / 3;
        const body = new DataView(new ArrayBuffer(vertices * 13 + count * 13));
        for (let v = 0; v < vertices; v++)
          at(v).forEach((x, axis) => body.setFloat32(13 * v + 4 * axis, x, little));
        for (let t = 0; t < count; t++) {
          const from = vertices * 13 + 13 * t;
          body.setUint8(from, 3);
          for (let k = 0; k < 3; k++)
            body.setInt32(from + 1 + 4 * k, mesh.triangles[3 * t + k]!, little);
        }
        const whole = new Uint8Array([...header, ...new Uint8Array(body.buffer)]);
        same(ours('e', whole), corners(new PLYLoader().parse(buffer(whole))));
      }
    }),
    { numRuns: 6 },
  );
});

test('a mesh file cut short, or of nonsense, is told and never thrown', () => {
  const mesh = meshOf({ kind: 'cap', widthMm: 100, heightMm: 10 }, 60);
  const good = bytesOf(writeObj(mesh));
  fc.assert(
    fc.property(
      fc.constantFrom('.obj', '.stl', '.ply', ''),
      fc.uint8Array({ maxLength: 400 }),
      (ending, bytes) => {
        expect(typeof readMeshFile(`x${ending}`, bytes).ok).toBe('boolean');
      },
    ),
  );
  fc.assert(
    fc.property(fc.nat(good.length - 1), fc.nat(255), (at, byte) => {
      const spoilt = Uint8Array.from(good);
      spoilt[at] = byte;
      expect(typeof readMeshFile('x.obj', spoilt.subarray(0, at + 300)).ok).toBe('boolean');
    }),
  );
  const line = readMeshFile('x.obj', bytesOf('v 0 0 0\nv 1 0 0\nv 0 one 0\nf 1 2 3\n'));
  expect(line).toMatchObject({
    ok: false,
    problems: [{ code: 'mesh-file-broken', numbers: { line: 3 } }],
  });
  expect(readMeshFile('letter.txt', bytesOf('Dear all,'))).toMatchObject({
    problems: [{ code: 'mesh-file-kind' }],
  });
  // Backwards corners and faces of four.
  const quad = readMeshFile(
    'x.obj',
    bytesOf('v 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\nf -4 -3 -2 -1\n'),
  );
  expect(quad.ok && [...quad.mesh.triangles]).toEqual([0, 1, 2, 0, 2, 3]);
});

test('profiles at stations of a barrel give the barrel, however many points each has and in whatever order they come', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 4, max: 15 }), { minLength: 4, maxLength: 7 }),
      fc.boolean(),
      spread(200, 600),
      (counts, reversed, r) => {
        const [across, long, half] = [300, 400, 140];
        const profiles = counts.map((count, i) => {
          const atMm = (long * i) / (counts.length - 1);
          // A translation surface: the arc across carried along a shallow arc.
          const lift = Math.sqrt(900 ** 2 - (atMm - long / 2) ** 2) - 900;
          const points = Array.from({ length: count }, (_, k): [number, number] => {
            const a = ((k / (count - 1)) * 2 - 1) * Math.asin(half / across);
            return [across * Math.sin(a), across * Math.cos(a) - across + lift];
          });
          return { atMm, points };
        });
        const given = StationsSchema.parse({
          kind: 'stations',
          profiles: reversed ? [...profiles].reverse() : profiles,
        });
        const made = stationsMesh(given, 800);
        if (!made.ok) throw new Error(made.problems[0]!.code);
        expect(made.deviations.worstMm).toBeLessThan(0.02);
        const { vertices } = made.mesh;
        let off = 0;
        for (let i = 0; i < vertices.length; i += 3) {
          const lift = Math.sqrt(900 ** 2 - vertices[i + 1]! ** 2) - 900;
          off = Math.max(
            off,
            Math.abs(Math.sqrt(across ** 2 - vertices[i]! ** 2) - across + lift - vertices[i + 2]!),
          );
        }
        expect(off).toBeLessThan(Math.min(...counts) < 6 ? 0.8 : 0.2);
        // On a spine that is an arc, and between guides that are the edges themselves.
        const bent = stationsMesh({ ...given, spineRadiusMm: r }, 400);
        expect(bent.ok && codeOf(bent.mesh)).toBe('disc');
        const ends = [...profiles].map(
          (p) => [p.points[0]!, p.points[p.points.length - 1]!] as const,
        );
        const guides = [0, 1].map((side) =>
          ends.map((e, i): [number, number, number] => [
            e[side]![0],
            profiles[i]!.atMm,
            e[side]![1],
          ]),
        ) as [[number, number, number][], [number, number, number][]];
        const between = stationsMesh({ ...given, guides }, 800);
        expect(between.ok && between.deviations.worstMm).toBeLessThan(1);
        // Each profile then stands square to the guides, which rise and fall by up to 13° here.
        expect(
          between.ok && Math.abs(meshArea(between.mesh) / meshArea(made.mesh) - 1),
        ).toBeLessThan(0.04);
      },
    ),
    { numRuns: 12 },
  );
});

test('a tolerance is used to be smooth and never gone beyond; the cubic is the one of least bending', () => {
  fc.assert(
    fc.property(spread(0.1, 2), fc.integer(), (toleranceMm, seed) => {
      const profiles = Array.from({ length: 6 }, (_, i) => ({
        atMm: 60 * i,
        points: Array.from({ length: 9 }, (_, k): [number, number] => [
          25 * k,
          20 * Math.sin((k * Math.PI) / 8) + Math.sin(seed + i * 91 + k * 37) * 0.8,
        ]),
      }));
      const given = StationsSchema.parse({ kind: 'stations', profiles, toleranceMm });
      const [rough, smooth] = [
        stationsMesh({ ...given, toleranceMm: 0 }, 900),
        stationsMesh(given, 900),
      ];
      if (!rough.ok || !smooth.ok) throw new Error('no surface');
      expect(rough.deviations.worstMm).toBeLessThan(0.05);
      expect(smooth.deviations.worstMm).toBeLessThan(toleranceMm + 0.05);
      expect(smooth.deviations.worstMm).toBeGreaterThan(rough.deviations.worstMm);
    }),
    { numRuns: 10 },
  );
  // Through three places it is the parabola: 1 − (x − 1)².
  const hat = smoothed([0, 1, 2], [0, 1, 0], 0);
  expect(hat.bends).toEqual([-2, -2, -2]);
  expect(cubicAt(hat, 0.5)).toBeCloseTo(0.75, 9);
  expect(cubicAt(hat, 3)).toBeCloseTo(-2, 9);
});
