import type { PictureSaid } from '#core/picture/marks';
import type { DrawingName } from './drawings';

/** A picture of the demonstration job: which drawing, on which piece (or the job), on which of its records, and what is said of it. */
export type DemoPicture = PictureSaid & {
  drawing: DrawingName;
  taken: string;
  piece: string | null;
  on: 'piece' | 'fit' | 'weld' | 'job';
};

export const DEMO_PICTURES: readonly DemoPicture[] = [
  {
    drawing: 'wellFound',
    taken: '2026-10-01T09:40:00',
    piece: 'Step-well tray',
    on: 'piece',
    caption: 'As it came in: two holes, the larger one under the mat',
    marks: [
      { id: 'd1', kind: 'ring', at: [560, 760], radius: 105, name: '70 × 45' },
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
    taken: '2026-10-06T11:25:00',
    piece: 'Step-well tray',
    on: 'piece',
    caption: 'Cut out, outriggers sound, the batten holds the opening',
    marks: [{ id: 'd5', kind: 'arrow', from: [520, 250], to: [600, 445], name: 'batten, screwed' }],
  },
  {
    drawing: 'tacks',
    taken: '2026-10-12T16:05:00',
    piece: 'Step-well tray',
    on: 'weld',
    caption: 'Tacks, before they were joined up',
    marks: [],
  },
  {
    drawing: 'archTrial',
    taken: '2026-10-01T10:15:00',
    piece: null,
    on: 'job',
    caption: 'Right rear arch with the left one’s lip held to it',
    marks: [{ id: 'd6', kind: 'arrow', from: [1250, 330], to: [1150, 470], name: 'tight from here on' }],
  },
];
