import type { PictureSaid } from '#core/picture/marks';
import type { DrawingName } from './drawings';

/**
 * A picture of the demonstration job: which drawing, on which piece (or the job), on which of its
 * records, and what is said of it.
 */
export type DemoPicture = PictureSaid & {
  drawing: DrawingName;
  taken: string;
  piece: string | null;
  on: 'piece' | 'fit' | 'weld' | 'job' | 'survey';
  /** What is surveyed that it hangs on, by its id. */
  of?: string;
};

export const DEMO_PICTURES: readonly DemoPicture[] = [
  {
    drawing: 'wellFound',
    taken: '2026-10-01T09:40:00',
    piece: 'Step-well tray',
    on: 'piece',
    caption: 'As it came in: two holes, the larger one under the mat',
    marks: [
      { id: 'd1', kind: 'ring', at: [560, 760], radius: 105, name: '110 × 70' },
      { id: 'd2', kind: 'pin', at: [1180, 722], name: 'pinholes' },
    ],
  },
  {
    drawing: 'wellSanded',
    taken: '2026-10-02T15:10:00',
    piece: 'Step-well tray',
    on: 'piece',
    caption: 'Sanded back to sound metal: one patch will not do',
    marks: [
      { id: 'd3', kind: 'ring', at: [560, 760], radius: 175, name: '150 × 90' },
      { id: 'd4', kind: 'arrow', from: [1010, 470], to: [1150, 668], name: 'thin to the riser' },
    ],
  },
  {
    drawing: 'wellCut',
    taken: '2026-10-03T11:25:00',
    piece: 'Step-well tray',
    on: 'piece',
    caption: 'Cut out, outriggers sound, the batten holds the opening',
    marks: [{ id: 'd5', kind: 'arrow', from: [520, 250], to: [600, 445], name: 'batten, screwed' }],
  },
  {
    drawing: 'tacks',
    taken: '2026-10-06T10:05:00',
    piece: 'Step-well tray',
    on: 'weld',
    caption: 'Tacks, before they were joined up',
    marks: [],
  },
  {
    drawing: 'wellSanded',
    taken: '2026-10-02T15:10:00',
    piece: null,
    on: 'survey',
    of: 'fTray',
    caption: 'Sanded back',
    marks: [
      { id: 'd7', kind: 'ring', at: [560, 760], radius: 175, name: '150 × 90' },
      { id: 'd8', kind: 'pin', at: [1180, 722], name: 'see “at the riser”' },
    ],
  },
  {
    drawing: 'sillFound',
    taken: '2026-10-02T14:00:00',
    piece: null,
    on: 'survey',
    of: 'fSill',
    caption: 'Probed: the spike goes in as far as the step',
    marks: [
      { id: 'd9', kind: 'arrow', from: [420, 420], to: [520, 730], name: 'sound from here on' },
      { id: 'd10', kind: 'pin', at: [900, 800], name: 'spike goes in' },
    ],
  },
  {
    drawing: 'pillar',
    taken: '2026-10-01T10:40:00',
    piece: null,
    on: 'survey',
    of: 'pA',
    caption: 'With the door off',
    marks: [{ id: 'd11', kind: 'pin', at: [600, 285], name: 'upper bolt: its centre' }],
  },
  {
    drawing: 'pillar',
    taken: '2026-10-01T10:40:00',
    piece: null,
    on: 'survey',
    of: 'pB',
    caption: 'The same',
    marks: [{ id: 'd12', kind: 'pin', at: [600, 925], name: 'lower bolt: its centre' }],
  },
  {
    drawing: 'archTrial',
    taken: '2026-10-01T10:15:00',
    piece: null,
    on: 'job',
    caption: 'Right rear arch with the left one’s lip held to it',
    marks: [
      { id: 'd6', kind: 'arrow', from: [1250, 330], to: [1150, 470], name: 'tight from here on' },
    ],
  },
];
