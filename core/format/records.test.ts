import { PieceFileSchema } from './job';
import { RECORD_KINDS } from './lists';
import { RECORDS, listsOf } from './records';

test('each kind of record has a list of its own in the job file, of its schema', () => {
  for (const kind of RECORD_KINDS) {
    const { list, schema, changed } = RECORDS[kind];
    expect(PieceFileSchema.shape[list].element).toBe(schema);
    // What every kind must say for it to be kept, put in order and taken back.
    expect(Object.keys(schema.shape)).toEqual(
      expect.arrayContaining(['at', 'withdrawn', ...changed]),
    );
  }
  const lists = listsOf<{ fit: string; weld: string; inspection: string }>((kind) => [kind]);
  expect(Object.keys(lists)).toHaveLength(RECORD_KINDS.length);
  expect(lists.welds).toEqual(['weld']);
});
