import { HELD } from './lists';
import { readFileSync } from 'node:fs';
import Papa from 'papaparse';
import { demoJob } from '../../demo/job';
import { develop } from '../blank/fold/develop';
import { DEFAULT_SHOP, sheetMetal } from '../blank/fold/practice';
import { chordOf } from '../card/foldPlace';
import type { Crown } from '../card/crown';
import type { PatternDoc } from '../card/pattern';
import { metalById } from '../metal/metals';
import { structureOfWords } from '../joint/fromWords';
import type { EdgePlan, PlanDoc } from '../weld/plan';
import { weldOf } from '../weld/planned';
import { wordsOfPlan } from '../weld/readPlan';
import { csv, foldCsv } from './csv';
import type { JobFile, PieceFile } from './job';
import { writeJob } from './job';
import { unfolded } from '../blank/fold/folding';
import { uncut } from '../cutdown/uncut';
import { unshaped } from '../shape/shaping';
import { unsurveyed } from '../survey/pieceSurvey';
import { readJob } from './readJob';

test('values with commas, quotes and lines in them are read back by another reader as they were', () => {
  const rows = [
    ['plain', 'a, b', 'say "edge A"', 'two\nlines', ''],
    ['Ünïcödé', '−1', '31 15/16"', '\t', ' '],
  ];
  expect(Papa.parse<string[]>(csv(rows), { skipEmptyLines: true }).data).toEqual(rows);
  // RFC 4180: every line ends with CR LF.
  expect(csv([['a', 1.23456]])).toBe('a,1.235\r\n');
});

test('the fold table of every demo piece that is made: a row a fold, the figures of its blank', () => {
  for (const piece of demoJob().pieces.filter(({ kind }) => kind === 'made')) {
    const pattern = piece.card.versions[piece.card.current - 1]!.doc;
    const found = develop(
      pattern,
      sheetMetal(metalById(piece.metal), piece.thicknessMm, DEFAULT_SHOP),
      DEFAULT_SHOP,
    );
    if (!found.ok) throw new Error(piece.name);
    const { data, errors } = Papa.parse<Record<string, string>>(foldCsv(found.development), {
      header: true,
      skipEmptyLines: true,
    });
    expect(errors).toEqual([]);
    expect(data).toHaveLength(pattern.folds.length);
    data.forEach((row, i) => {
      const fold = found.development.folds[i]!;
      expect(Number(row.deduction_mm)).toBeCloseTo(fold.allowance.deductionMm, 2);
      expect(Number(row.angle_deg)).toBe(fold.bend.angleDeg);
      // Allowance less twice the setback is what everything beyond moves.
      expect(Number(row.allowance_mm) - 2 * Number(row.setback_mm)).toBeCloseTo(
        Number(row.shift_mm),
        2,
      );
      expect(pattern.edges.map((edge) => edge.letter)).toContain(row.brake_from_edge);
    });
  }
});

describe('a job file', () => {
  const text = writeJob(demoJob());
  const broken = (change: (job: ReturnType<typeof demoJob>) => void) => {
    const job = JSON.parse(JSON.stringify(demoJob())) as ReturnType<typeof demoJob>;
    change(job);
    const read = readJob(job);
    return read.ok ? 'taken' : [read.problems[0]!.code, ...read.problems[0]!.about!].join(': ');
  };

  test('says what it is, holds no ids of a database, and is the same when written again', () => {
    const job = JSON.parse(text) as Record<string, unknown>;
    expect(job).toMatchObject({ format: 'patrone-job', version: 12 });
    expect(text).not.toMatch(/[0-9a-f]{8}-[0-9a-f]{4}-/);
    const read = readJob(job);
    expect(read.ok && writeJob(read.job)).toBe(text);
  });

  test('what does not fit is told by its place', () => {
    expect(broken(() => undefined)).toBe('taken');
    expect(broken((job) => (job.pieces[1]!.thicknessMm = 40))).toBe(
      'job-unreadable: pieces 1 thicknessMm',
    );
    expect(broken((job) => (job.pieces[0]!.card.versions[0]!.doc.corners[2]!.x = Number.NaN))).toBe(
      'document-unreadable: piece 1, card 1: corners.2.x',
    );
    expect(broken((job) => (job.job.created = 'yesterday'))).toBe('job-unreadable: job created');
    expect(broken((job) => (job.version = 99 as never))).toBe('job-too-new');
    expect(broken((job) => (job.format = 'other' as never))).toBe('job-not-one');
    const badly = 'job-unreadable: pieces 0 card';
    expect(broken((job) => (job.pieces[0]!.card.current = 9))).toBe(badly);
    expect(broken((job) => (job.pieces[0]!.card.versions[1]!.parent = 2))).toBe(badly);
    expect(
      broken((job) => job.pieces[0]!.card.versions.push(job.pieces[0]!.card.versions[0]!)),
    ).toBe(badly);
    // What must hold together beyond the form.
    const inCard = (change: (doc: PatternDoc) => void) =>
      broken((job) => change(job.pieces[0]!.card.versions[2]!.doc));
    const third = 'piece 1, card 3';
    expect(inCard((doc) => (doc.folds[1]!.id = doc.folds[0]!.id))).toBe(
      `document-ids-twice: ${third}: f1`,
    );
    expect(inCard((doc) => (doc.sides[0]!.from = 'gone'))).toMatch(
      new RegExp(`^document-reference-gone: ${third}`),
    );
    expect(inCard((doc) => doc.edges.reverse())).toBe(`document-edges-part-badly: ${third}`);
    expect(inCard((doc) => doc.edges.pop())).toBe(`document-edges-part-badly: ${third}`);
    expect(inCard((doc) => (doc.version = 99 as never))).toBe(`document-too-new: ${third}`);
  });

  test('a job of every older version comes up to date whole', () => {
    const old = JSON.parse(fixture('job-v1.json')) as {
      pieces: V1Piece[];
    };
    const read = readJob(old);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    read.job.pieces.forEach((piece, i) => {
      const before = old.pieces[i]!;
      expect(piece.card.versions).toHaveLength(before.revisions.length);
      const now = piece.card.versions[piece.card.current - 1]!.doc;
      const then = before.revisions[before.revision - 1]!.pattern;
      expect(now.corners).toEqual(then.corners);
      // Folds lie where they lay; whom an edge met and how it was to be welded is in the plan.
      now.folds.forEach((fold, k) => {
        const { from, to } = then.folds[k]!;
        expect(chordOf(now, fold)).toEqual({ from, to });
      });
      const plan = piece.plan.versions[piece.plan.current - 1]!.doc;
      for (const edge of then.edges) {
        expect(wordAt(read.job, i, edge.id)).toBe(edge.meets);
        expect(
          weldOf(
            plan,
            now.edges.find((e) => e.id === edge.id)!,
            piece.thicknessMm,
          ),
        ).toEqual(edge.weld);
      }
      expect(piece.welds.map(({ made: _made, withdrawn: _withdrawn, ...weld }) => weld)).toEqual(
        before.welds,
      );
    });
    // Written and read again it stays as it is.
    expect(readJob(JSON.parse(writeJob(read.job)))).toEqual(read);
  });

  test('a job of this version, as it was first written, is still read and written to the byte', () => {
    const text = fixture('job-v12.json');
    const read = readJob(JSON.parse(text));
    expect(read.ok && writeJob(read.job)).toBe(text);
  });

  test('what edges met in a word is a part of the vehicle and a joint since version 12', () => {
    const old = JSON.parse(fixture('job-v11.json')) as JobFile;
    expect(readJob(structuredClone(old))).toEqual({ ok: true, job: inJoints(old) });
    const { structure } = inJoints(old);
    expect(structure.some(({ body }) => body.kind === 'joint')).toBe(true);
  });

  test('pieces of version 10 were all made here, and are else as they were', () => {
    const old = JSON.parse(fixture('job-v10.json')) as JobFile;
    expect(readJob(structuredClone(old))).toEqual({ ok: true, job: madeHere(old) });
  });

  test('four names of cards of version 11 were others, and those of others that they hold', () => {
    const old = JSON.parse(fixture('job-v10-card-v11.json')) as OldJob;
    const cards = old.pieces.flatMap(({ card }) => card.versions.map(({ doc }) => doc));
    expect(cards.some(({ taken }) => taken !== null)).toBe(true);
    expect(cards.some(({ folds }) => folds.length > 0)).toBe(true);
    type Card = Partial<OldCard> & object;
    const expected = JSON.parse(fixture('job-v10-card-v11.json'), (_, value: unknown) => {
      const { left, taken, folds, crown, ...card } = (value ?? {}) as Card;
      if (card.version !== 11 || !folds) return value;
      const { takeOff: edgeOffsets, ...link } = taken ?? {};
      return {
        ...card,
        version: 13,
        crown: balanced(crown),
        dismissedRules: left,
        folds: folds.map(({ made: convention, ...fold }) => ({ ...fold, convention })),
        ...(taken === undefined ? {} : { linkedFrom: taken && { ...link, edgeOffsets } }),
      };
    }) as JobFile;
    expect(readJob(old)).toEqual({ ok: true, job: madeHere(expected) });
  });

  test('a crown’s balance had another name in cards of version 12', () => {
    const text = fixture('job-v10-card-v12.json');
    expect(text).toContain('"school"');
    const expected = JSON.parse(text, (_, value: unknown) => {
      const { crown, ...card } = (value ?? {}) as Partial<OldCard> & object;
      return card.version === 12 ? { ...card, version: 13, crown: balanced(crown) } : value;
    }) as JobFile;
    expect(readJob(JSON.parse(text))).toEqual({ ok: true, job: madeHere(expected) });
  });

  test('sheet pins had a maker’s name in files of version 9; ends of flanges and corners of walls were not said', () => {
    const text = readFileSync('core/format/fixtures/job-v9.json', 'utf8');
    const old = JSON.parse(text) as OldJob;
    const pieces = cardsAs(old.pieces, (card) => ({ ...card, version: 11 })).map((piece) => ({
      ...piece,
      fits: piece.fits.map((fit) => ({
        ...fit,
        held: HELD.includes(fit.held) ? fit.held : ('sheet-pins' as const),
      })),
    }));
    expect(JSON.stringify(pieces)).not.toBe(JSON.stringify(old.pieces));
    expect(readOld(old)).toEqual({
      ok: true,
      job: { ...old, version: 10, pieces },
    });
  });

  test('of beads of version 8 it is not said which side of a curve they stand on, and the job is else as it was', () => {
    const old = JSON.parse(fixture('job-v8.json')) as OldJob;
    expect(
      old.pieces.some(({ card }) => card.versions.some(({ doc }) => doc.beads.length > 0)),
    ).toBe(true);
    expect(readOld(old)).toEqual({
      ok: true,
      job: { ...old, version: 10, pieces: cardsAs(old.pieces, sideless) },
    });
  });

  test('trials of version 7 do not say who made them, and the job is else as it was', () => {
    const old = JSON.parse(fixture('job-v7.json')) as OldJob;
    expect(old.pieces.some(({ fits }) => fits.length > 0)).toBe(true);
    const pieces = trackless(old.pieces).map((piece) => ({ ...piece, fits: byNobody(piece) }));
    expect(readOld(old)).toEqual({
      ok: true,
      job: { ...old, version: 10, pieces },
    });
  });

  test('maps of cards of version 8 have no tracks, nor have those of others they hold', () => {
    const old = JSON.parse(fixture('job-v8.json')) as OldJob;
    const expected = { ...old, version: 10, pieces: trackless(structuredClone(old.pieces)) };
    const cards = old.pieces.flatMap(({ card }) =>
      card.versions.flatMap(({ doc }) =>
        [doc, doc.taken?.card, doc.taken?.here].flatMap((one) => one ?? []),
      ),
    );
    for (const card of cards as {
      version: number;
      crown: { map: { tracks?: unknown } | null } | null;
    }[]) {
      card.version = 8;
      if (card.crown?.map) delete card.crown.map.tracks;
    }
    expect(cards.some(({ crown }) => crown?.map)).toBe(true);
    expect(readOld(old)).toEqual({ ok: true, job: expected });
  });

  test('cards of version 2 have nothing ruled, left, tucked or measured on a picture, and are else as they were', () => {
    const old = JSON.parse(fixture('job-v4.json')) as OldJob;
    expect(old.pieces[0]!.card.versions[0]!.doc.version).toBe(2);
    expect(readOld(old)).toEqual({
      ok: true,
      job: { ...old, version: 10, pieces: withCardsNow(old) },
    });
  });

  test('what was ruled on cards of version 3 stays; they have no profiles, and come from no other', () => {
    const old = JSON.parse(fixture('job-v4-card-v3.json')) as OldJob;
    const { rules, tucks, measured } = old.pieces[0]!.card.versions.at(-1)!.doc;
    expect([rules.length, tucks.length, measured]).not.toEqual([0, 0, null]);
    const kept = { rules, tucks, measured };
    const read = readOld(old);
    expect(read.ok && read.job.pieces[0]!.card.versions.at(-1)!.doc).toMatchObject({
      ...kept,
      version: 11,
      profiles: [],
      marks: [],
      beads: [],
      crown: null,
      taken: null,
    });
  });

  test('cards of version 4 have nothing marked, nor has what they have of others', () => {
    const old = JSON.parse(fixture('job-v5-card-v4.json')) as OldJob;
    const cards = (job: OldJob) =>
      job.pieces.flatMap(({ card }) => card.versions.map(({ doc }) => doc));
    expect(cards(old).some(({ taken }) => taken?.card)).toBe(true);
    const read = readOld(old);
    const now = <T extends object>(card: T) => ({
      ...card,
      version: 11,
      marks: [],
      beads: [],
      crown: null,
    });
    const expected = cards(old).map(({ taken, ...doc }) => ({
      ...now(doc),
      taken: taken && { ...taken, card: now(taken.card), here: taken.here && now(taken.here) },
    }));
    expect(read.ok && cards(read.job)).toEqual(expected);
  });

  test('cards of version 5 have no beads, nor has what they have of others', () => {
    const old = JSON.parse(fixture('job-v6-card-v5.json')) as OldJob;
    expect(old.pieces.some(({ card }) => card.versions.some(({ doc }) => doc.taken))).toBe(true);
    expect(readOld(old)).toEqual({
      ok: true,
      job: { ...old, version: 10, pieces: beadless(old) },
    });
  });

  test('cards of version 6 were laid flat from nothing, nor was what they have of others', () => {
    const old = JSON.parse(fixture('job-v7-card-v6.json')) as OldJob;
    expect(old.pieces.some(({ card }) => card.versions.some(({ doc }) => doc.taken))).toBe(true);
    expect(readOld(old)).toEqual({
      ok: true,
      job: { ...old, version: 10, pieces: withCards(old.pieces, {}) },
    });
  });

  test('of what cards of version 7 were laid flat from nothing but edges was held, and no map was kept', () => {
    const old = JSON.parse(fixture('job-v7-card-v7.json')) as OldJob;
    const cards = (job: OldJob) =>
      job.pieces.flatMap(({ card }) => card.versions.map(({ doc }) => doc));
    expect(cards(old).some(({ crown }) => crown)).toBe(true);
    const read = readOld(old);
    const now = <T extends { crown: object | null }>(card: T) =>
      sideless({
        ...card,
        crown: card.crown && { ...card.crown, hold: [], map: null },
      } as unknown as OldCard);
    const expected = cards(old).map(({ taken, ...doc }) => ({
      ...now(doc),
      taken: taken && { ...taken, card: now(taken.card), here: taken.here && now(taken.here) },
    }));
    expect(read.ok && cards(read.job)).toEqual(expected);
  });

  test('of pieces of version 6 nothing has been shaped, and they are else as they were', () => {
    const old = JSON.parse(fixture('job-v6.json')) as OldJob;
    const pieces = withCards(old.pieces, {}).map((piece) => ({ ...piece, shaping: unshaped() }));
    expect(readOld(old)).toEqual({
      ok: true,
      job: { ...old, version: 10, pieces },
    });
  });

  test('of pieces of version 5 nothing has been said of their folding, and they are else as they were', () => {
    const old = JSON.parse(fixture('job-v5.json')) as OldJob;
    const pieces = beadless(old).map((piece) => ({ ...piece, folding: unfolded() }));
    expect(readOld(old)).toEqual({
      ok: true,
      job: { ...old, version: 10, pieces },
    });
  });

  test('a piece comes from one before it in the file', () => {
    const job = JSON.parse(fixture('job-v5.json')) as OldJob;
    job.pieces[0]!.came = { piece: 0, as: 'again', why: '' };
    expect(readJob(job)).toMatchObject({
      ok: false,
      problems: [{ code: 'job-unreadable', about: ['pieces 0 came piece'] }],
    });
  });

  test('a job from before there were pictures has none, and is else as it was', () => {
    const old = JSON.parse(fixture('job-v2.json')) as OldJob;
    const read = readOld(old);
    const pieces = withCardsNow(old).map((piece) => ({
      ...piece,
      pictures: [],
      survey: unsurveyed(),
    }));
    expect(read).toEqual({
      ok: true,
      job: { ...old, version: 10, survey: [], pictures: [], pieces },
    });
  });

  test('a job from before pieces were surveyed takes nothing away, and its readings are as they were', () => {
    const old = JSON.parse(fixture('job-v3.json')) as OldJob;
    const read = readOld(old);
    const pieces = withCardsNow(old).map((piece) => ({ ...piece, survey: unsurveyed() }));
    expect(read.job).toMatchObject({ ...old, version: 10, pieces });
    const { survey } = read.job;
    expect(survey.filter(({ body }) => body.kind === 'round').length).toBeGreaterThan(0);
    for (const { body } of survey) {
      if (body.kind === 'measure') expect(body.partner).toBeNull();
      if (body.kind === 'round')
        for (const reading of Object.values(body.readings)) expect(reading.as).toBe('');
    }
  });

  test('a record is about an edge that the card has or had', () => {
    const job = JSON.parse(fixture('job-v4.json')) as OldJob;
    job.pieces[0]!.inspections[1]!.edge = 's3[]';
    expect(readJob(job)).toMatchObject({
      ok: false,
      problems: [{ code: 'job-unreadable', about: ['pieces 0 inspections 1 edge'] }],
    });
  });

  test('a picture hangs on a record that is there', () => {
    const job = JSON.parse(fixture('job-v4.json')) as OldJob;
    job.pieces[0]!.pictures[0]!.on = { owner: 'weld', record: 99 };
    expect(readJob(job)).toMatchObject({
      ok: false,
      problems: [{ code: 'job-unreadable', about: ['pieces 0 pictures 0 on'] }],
    });
  });
});

/**
 * Cards as the tests of older forms tell them: in the names of version 11, which those forms have.
 * That version 11 comes to the names of now is a test of its own.
 */
type OldCard = Omit<PatternDoc, 'version' | 'dismissedRules' | 'linkedFrom' | 'folds' | 'crown'> & {
  version: number;
  crown: OldCrown | null;
  left: PatternDoc['dismissedRules'];
  folds: (Omit<PatternDoc['folds'][number], 'convention'> & { made: string })[];
  taken: OldLink | null;
};
type OldCrown = Omit<Crown, 'balance'> & { school: number };
type OldLink = { card: OldCard; here: OldCard | null; aboutMm: number; takeOff: unknown[] };
type OldPiece = Omit<JobFile['pieces'][number], 'card' | 'kind' | 'cutDown'> & {
  card: {
    current: number;
    versions: { number: number; parent: number; at: string; doc: OldCard }[];
  };
};
type OldJob = Omit<JobFile, 'pieces' | 'version' | 'structure'> & {
  version: number;
  pieces: OldPiece[];
};

/** A crown of version 12 in the names of now. */
const balanced = (crown: OldCrown | null | undefined): Crown | null => {
  if (!crown) return null;
  const { school: balance, ...rest } = crown;
  return { ...rest, balance };
};

function inOldNames({ dismissedRules, linkedFrom, folds, crown, ...card }: PatternDoc): OldCard {
  const { balance: school, ...flat } = crown ?? {};
  const { card: from, here, edgeOffsets, aboutMm } = linkedFrom ?? {};
  const old = (one: object) => {
    const { taken: _none, ...told } = inOldNames({ ...(one as PatternDoc), linkedFrom: null });
    return told as OldCard;
  };
  return {
    ...card,
    version: 11,
    left: dismissedRules,
    crown: crown && ({ ...flat, school } as OldCrown),
    folds: folds.map(({ convention, ...fold }) => ({ ...fold, made: convention })),
    taken: from
      ? { card: old(from), here: here ? old(here) : null, aboutMm: aboutMm!, takeOff: edgeOffsets! }
      : null,
  };
}

function readOld(given: OldJob): { ok: boolean; job: OldJob } {
  const read = readJob(structuredClone(given));
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  const { structure, ...job } = read.job;
  expect(structure).toEqual(inJoints(given as unknown as JobFile).structure);
  const pieces = job.pieces.map(({ kind, cutDown, ...piece }, i) => ({
    ...piece,
    plan: withWords(piece.plan, given.pieces[i]!.plan),
    ...(kind !== 'made' && { kind, cutDown }),
    card: {
      ...piece.card,
      versions: piece.card.versions.map((version) => ({
        ...version,
        doc: inOldNames(version.doc),
      })),
    },
  }));
  return { ok: true, job: { ...job, version: 10, pieces } };
}

/** A job of version 10 as it is now: every piece was made here. */
const madeHere = (job: JobFile): JobFile => ({
  ...inJoints({
    ...job,
    pieces: job.pieces.map((piece) => ({ ...piece, kind: 'made', cutDown: uncut() })),
  }),
});

/** A job of version 11 as it is now: what its edges met in a word, they meet by joints. */
function inJoints(job: JobFile): JobFile {
  const words = job.pieces.map(({ plan }) =>
    wordsOfPlan(plan.versions.find(({ number }) => number === plan.current)?.doc),
  );
  return {
    ...job,
    version: 12,
    structure: structureOfWords(words, job.job.created),
    pieces: job.pieces.map((piece) => ({
      ...piece,
      plan: {
        ...piece.plan,
        versions: piece.plan.versions.map((version) => ({
          ...version,
          doc: wordless(version.doc),
        })),
      },
    })),
  };
}

/** The plans of an older file, where they are those that were read but for their words. */
function withWords(read: PieceFile['plan'], old: PieceFile['plan'] | undefined) {
  if (!old) return read;
  const versions = old.versions.map((version) => ({ ...version, doc: wordless(version.doc) }));
  expect(read).toEqual({ ...old, versions });
  return old;
}

/** A plan of version 1 without its words. */
function wordless(doc: PlanDoc): PlanDoc {
  const edges = (doc.edges as (EdgePlan & { meets?: string })[])
    .map(({ meets: _, ...edge }) => edge)
    .filter((edge) => 'weld' in edge);
  return { ...doc, version: 2, edges };
}

/** The word of the part that an edge of a piece meets, by the joints of a job; empty without one. */
function wordAt({ structure }: JobFile, piece: number, edge: string): string {
  const bodies = new Map(structure.map(({ id, body }) => [id, body]));
  for (const body of bodies.values()) {
    if (body.kind !== 'joint' || body.first.piece !== piece || body.first.edge !== edge) continue;
    const part = 'part' in body.second ? bodies.get(body.second.part) : undefined;
    if (part?.kind === 'part') return part.name;
  }
  return '';
}

/** A file of an older version as it was written, but for the one word of it that has changed. */
const fixture = (name: string): string =>
  readFileSync(`core/format/fixtures/${name}`, 'utf8').replace(
    /"held": "(\w+)"/g,
    (said, word: string) => (HELD.includes(word as never) ? said : '"held": "sheet-pins"'),
  );

/** A card of version 9, as it is now. */
const sideless = (card: OldCard): OldCard => ({
  ...card,
  version: 11,
  beads: card.beads.map((bead) => ({ ...bead, acrossOn: null })),
});

/** The pieces of a file with cards of version 8, their cards as they are now. */
const trackless = (pieces: OldPiece[]): OldPiece[] =>
  cardsAs(pieces, (card) =>
    sideless({
      ...card,
      crown: card.crown && {
        ...card.crown,
        map: card.crown.map && { ...card.crown.map, tracks: [] },
      },
    }),
  );

/** Pieces with their cards, and what these have of others, made others. */
const cardsAs = (pieces: OldPiece[], now: (card: OldCard) => OldCard): OldPiece[] =>
  pieces.map((piece) => ({
    ...piece,
    card: {
      ...piece.card,
      versions: piece.card.versions.map(({ doc, ...version }) => ({
        ...version,
        doc: {
          ...now(doc),
          taken: doc.taken && {
            ...doc.taken,
            card: now(doc.taken.card as OldCard),
            here: doc.taken.here && now(doc.taken.here as OldCard),
          },
        } as OldCard,
      })),
    },
  }));

/** Trials as they are read from files of before version 8. */
const byNobody = ({ fits }: OldPiece) => fits.map((fit) => ({ ...fit, who: '' }));

/** The pieces of a file with cards of version 5, their cards as they are now. */
const beadless = ({ pieces }: OldJob): OldPiece[] =>
  withCards(pieces, { beads: [] }).map((piece) => ({ ...piece, shaping: unshaped() }));

/** Pieces whose cards, and what these have of others, are of this version with `more` put in. */
const withCards = (pieces: OldPiece[], more: Partial<OldCard>): OldPiece[] =>
  cardsAs(pieces, (card) => sideless({ ...card, crown: null, ...more })).map((piece) => ({
    ...piece,
    fits: byNobody(piece),
  }));

/**
 * The pieces of a file from before pieces came from others, with cards of version 2, their cards as
 * they are now.
 */
const withCardsNow = ({ pieces }: OldJob): OldPiece[] =>
  pieces.map((piece) => ({
    ...piece,
    fits: byNobody(piece),
    came: null,
    folding: unfolded(),
    shaping: unshaped(),
    card: {
      ...piece.card,
      versions: piece.card.versions.map((version) => ({
        ...version,
        doc: { ...version.doc, ...SINCE_VERSION_2 },
      })),
    },
  }));

const SINCE_VERSION_2 = {
  version: 11,
  crown: null,
  marks: [],
  beads: [],
  rules: [],
  left: [],
  tucks: [],
  measured: null,
  profiles: [],
  underlay: null,
  taken: null,
};

type V1Piece = {
  revision: number;
  revisions: {
    pattern: {
      corners: unknown[];
      folds: { from: unknown; to: unknown }[];
      edges: { id: string; meets: string; weld: unknown }[];
    };
  }[];
  welds: unknown[];
};
