import { develop } from '#core/blank/fold/develop';
import { DEFAULT_SHOP, sheetMetal } from '#core/blank/fold/practice';
import { checkCard } from '#core/card/check';
import { writeJob } from '#core/format/job';
import { readJob } from '#core/format/readJob';
import { metalById } from '#core/metal/metals';
import { emptyPlan } from '#core/weld/emptyPlan';
import { plugsOnBlank } from '#core/weld/plugs';
import { demoJob } from './job';

test('every piece of the demo that is made has a blank, and all can be followed on to their welds', () => {
  for (const piece of demoJob().pieces) {
    const pattern = piece.card.versions[piece.card.current - 1]!.doc;
    const plan = piece.plan.versions[piece.plan.current - 1]?.doc ?? emptyPlan();
    const edges = new Set(pattern.edges.map((edge) => edge.id));
    for (const record of [
      ...piece.welds,
      ...piece.inspections,
      ...piece.fits.flatMap((fit) => fit.edges),
    ]) {
      expect(edges).toContain(record.edge);
    }
    if (piece.kind !== 'made') {
      expect(checkCard(pattern).map(({ code }) => code)).toEqual(['outline-presumed']);
      continue;
    }
    const found = develop(
      pattern,
      sheetMetal(metalById(piece.metal), piece.thicknessMm, DEFAULT_SHOP),
      DEFAULT_SHOP,
    );
    if (!found.ok) throw new Error(`${piece.name}: ${JSON.stringify(found.problems)}`);
    expect(found.development.warnings.map((w) => w.code)).not.toContain('blank-crosses');
    for (const plugs of plugsOnBlank(
      pattern,
      plan,
      piece.thicknessMm,
      found.development,
      () => 'here',
    ))
      expect(plugs.centres.length).toBeGreaterThan(1);
  }
});

test('a job file read and written again is the same to the byte', () => {
  const text = writeJob(demoJob());
  const read = readJob(JSON.parse(text));
  expect(read.ok && writeJob(read.job)).toBe(text);
});
