import { readFileSync } from 'node:fs';
import { z } from 'zod';
import { problemSentence } from '#app/frame/sentences';
import type { Failure, Result } from '#core/measure/result';
import { area, perimeter } from '#core/measure/path';
import { line, reversed } from '#core/measure/segment';
import { runToCompletion } from '#core/measure/runToCompletion';
import { cleaned } from '#core/surface/mesh/clean';
import { curvatureOf } from '#core/surface/mesh/curvature';
import type { Disc } from '#core/surface/mesh/disc';
import { discOf } from '#core/surface/mesh/disc';
import type { Figure } from '#core/surface/mesh/figures';
import { FigureSchema, USUAL_TRIANGLES, figureMesh } from '#core/surface/mesh/figures';
import { readMeshFile } from '#core/surface/file/meshFile';
import { writeObj } from '#core/surface/file/obj';
import { flatArea } from '#core/surface/flatten/firstFlat';
import { flatten } from '#core/surface/flatten/flatten';
import type { Mesh } from '#core/surface/mesh/mesh';
import { meshFrom, triangleCount } from '#core/surface/mesh/mesh';
import { tapedPanel } from '#core/surface/flatten/taped';
import { StationsSchema, stationsMesh } from '#core/surface/mesh/stations';
import { panelOf, plainEnergy, strainsOf } from '#core/surface/strain/strain';
import type { Verb } from './verb';
import { verb } from './verb';

const figure = z.number();
const Place = z.tuple([figure, figure, figure]);
const Corners = z.tuple([z.int().min(0), z.int().min(0), z.int().min(0)]);

/** A mesh as arrays, or out of a file, cleaned first if wanted. */
const MeshSchema = z.object({
  vertices: z.array(Place).optional(),
  triangles: z.array(Corners).optional(),
  mesh: z.string().min(1).optional(),
  clean: z.boolean().default(false),
});

/**
 * Paper with tucks and slits: the corners of its outline, and each wedge from the middle of its
 * mouth, mm along the outline.
 */
const PaperSchema = z.object({
  kind: z.literal('paper'),
  outline: z.array(z.tuple([figure, figure])).min(3),
  wedges: z.array(
    z.object({
      kind: z.enum(['tuck', 'slit']),
      atMm: figure,
      widthMm: z.number().positive(),
      point: z.tuple([figure, figure]),
    }),
  ),
});

const SurfaceSchema = z.intersection(
  z.union([FigureSchema, StationsSchema, PaperSchema]),
  z.object({
    triangles: z.int().min(8).max(500_000).default(USUAL_TRIANGLES),
    as: z.enum(['arrays', 'obj']).default('arrays'),
  }),
);

const ROOF = {
  vertices: [
    [0, 0, 0],
    [50, 0, 30],
    [100, 0, 0],
    [0, 80, 0],
    [50, 80, 30],
    [100, 80, 0],
  ],
  triangles: [
    [0, 1, 4],
    [0, 4, 3],
    [1, 2, 5],
    [1, 5, 4],
  ],
} satisfies z.input<typeof MeshSchema>;

type Given = z.output<typeof MeshSchema>;
type Taken = { disc: Disc; fromFile: boolean; cleaning: object | null };

/** A refusal with what to do about each problem. */
const withRemedies = ({ problems }: Failure) => ({
  ok: false as const,
  problems: problems.map((problem) => ({
    ...problem,
    message: problemSentence(problem, null, (mm) => `${mm} mm`),
  })),
});

/** The disc that is meant, or what stands in its way. */
function taken(given: Given): Result<Taken> | { ok: false; problems: object[] } {
  const { vertices, triangles, mesh: path } = given;
  if ((path === undefined) === (vertices === undefined || triangles === undefined))
    return {
      ok: false,
      problems: [
        {
          code: 'mesh-missing',
          message: 'Give "vertices" and "triangles", or "mesh": a file of OBJ, STL or PLY.',
        },
      ],
    };
  let mesh: Mesh;
  if (path === undefined) mesh = meshFrom(vertices!, triangles!);
  else {
    let bytes: Buffer;
    try {
      bytes = readFileSync(path);
    } catch (error) {
      return { ok: false, problems: [{ code: 'cannot-read', message: (error as Error).message }] };
    }
    const read = readMeshFile(path, bytes);
    if (!read.ok) return withRemedies(read);
    mesh = read.mesh;
  }
  const { mesh: usable, ...cleaning } = given.clean ? cleaned(mesh) : { mesh };
  const found = discOf(usable);
  if (!found.ok) return withRemedies(found);
  return {
    ok: true,
    disc: found.disc,
    fromFile: path !== undefined,
    cleaning: given.clean ? cleaning : null,
  };
}

const pairs = (values: Float64Array): [number, number][] =>
  Array.from({ length: values.length / 2 }, (_, i) => [values[2 * i]!, values[2 * i + 1]!]);
const threes = (values: ArrayLike<number>): number[][] =>
  Array.from({ length: values.length / 3 }, (_, i) => [
    values[3 * i]!,
    values[3 * i + 1]!,
    values[3 * i + 2]!,
  ]);
const arrays = ({ vertices, triangles }: Mesh) => ({
  vertices: threes(vertices),
  triangles: threes(triangles),
});

const BALANCE = z.number().min(0).max(1);
const degrees = (radians: number): number => (radians * 180) / Math.PI;

/** What is reckoned of panels curved two ways. */
export const SURFACE_VERBS: Record<string, Verb> = {
  flatten: verb(
    'A panel curved two ways laid flat by least energy (balance 0 stretch, 0.5 both alike, 1 shrink), with its strains; "mesh": a file of OBJ, STL, PLY; "clean": true mends it first',
    // `school` is its name of old.
    MeshSchema.extend({ balance: BALANCE.optional(), school: BALANCE.optional() }),
    { ...ROOF, balance: 0.5 },
    (given) => {
      const began = performance.now();
      const input = taken(given);
      if (!input.ok) return input;
      const { disc, fromFile, cleaning } = input;
      const found = flatten(disc, given.balance ?? given.school ?? 0.5);
      if (!found.ok) return withRemedies(found);
      const panel = panelOf(disc.mesh);
      const strains = strainsOf(panel, found.flat);
      return {
        ok: true,
        ...(cleaning && { cleaning }),
        ...((fromFile || cleaning) && arrays(disc.mesh)),
        flat: pairs(found.flat),
        strain: pairs(strains),
        energy: plainEnergy(panel, found.flat),
        weighedEnergy: found.energy,
        flatAreaMm2: flatArea(panel.triangles, found.flat),
        panelAreaMm2: panel.whole,
        flipped: countFlipped(disc.mesh, found.flat),
        rewound: disc.rewound,
        steps: found.steps,
        seconds: (performance.now() - began) / 1000,
      };
    },
  ),
  surface: verb(
    'The surface of a panel from its figures (cap, barrel, saddle, ring, cone, shrunk-edge, blend), from stations, or from paper with tucks and slits, as arrays or as OBJ',
    SurfaceSchema,
    { kind: 'cap', widthMm: 400, heightMm: 30, triangles: 96 },
    (given) => {
      const stations = given.kind === 'stations' ? stationsMesh(given, given.triangles) : null;
      const paper = given.kind === 'paper' ? tapedFrom(given) : null;
      const made = stations ?? paper ?? figureMesh(given as Figure, given.triangles);
      if (!made.ok) return withRemedies(made);
      const { mesh } = made;
      return {
        ok: true,
        form: given.kind,
        ...(given.as === 'obj' ? { obj: writeObj(mesh) } : arrays(mesh)),
        ...(paper?.ok && { offMm: paper.offMm, stretched: paper.stretched }),
        ...(stations?.ok && {
          deviationsMm: stations.deviations.each,
          worstMm: stations.deviations.worstMm,
        }),
        count: triangleCount(mesh),
      };
    },
  ),
  curvature: verb(
    'The curvature of a panel: what lies inside it (integral of Gaussian curvature) and the turning along its rim, degrees; together 360. Of the turning, onRimDeg is about what is curvature of the outer half ring of the net, ± uOnRimDeg',
    MeshSchema,
    ROOF,
    (given) => {
      const input = taken(given);
      if (!input.ok) return input;
      const { inside, rim, onRim, uOnRim } = curvatureOf(input.disc);
      return {
        ok: true,
        totalDeg: degrees(inside),
        boundaryDeg: degrees(rim),
        onRimDeg: degrees(onRim),
        uOnRimDeg: degrees(uOnRim),
      };
    },
  ),
};

function tapedFrom({
  outline,
  wedges,
  triangles,
}: z.output<typeof PaperSchema> & { triangles: number }) {
  const path = outline.map((p, i) => line(p, outline[(i + 1) % outline.length]!));
  // Clockwise it is read from its start backward.
  const clockwise = area(path) < 0;
  const turned = clockwise ? path.map(reversed).reverse() : path;
  const at = (mm: number) => (clockwise ? perimeter(path) - mm : mm);
  const named = wedges.map((wedge, i) => ({
    ...wedge,
    id: `wedge ${i + 1}`,
    atMm: at(wedge.atMm),
  }));
  return runToCompletion(tapedPanel(turned, named, triangles));
}

/** Triangles that lie the other way up than on the panel: none, by the way it is laid. */
function countFlipped({ triangles }: Mesh, flat: Float64Array): number {
  let flipped = 0;
  for (let i = 0; i < triangles.length; i += 3)
    if (!(flatArea(triangles.subarray(i, i + 3), flat) > 0)) flipped++;
  return flipped;
}
