import Box from '@mui/material/Box';
import { Suspense, lazy } from 'react';
import { setEdge } from '#core/card/edit';
import type { JointKind } from '#core/card/kinds';
import { JOINTS } from '#core/card/kinds';
import type { Edge, Joint } from '#core/card/pattern';
import type { Unit } from '#core/measure/length';
import { usualLength } from '#core/measure/length';
import { Choice } from '../forms/Choice';
import { LengthField } from '../forms/LengthField';
import { usePreferences } from '../frame/preferences';
import { JOINT_WORDS } from '../frame/words';
import { usePiece } from '../piece/pieceContext';

/**
 * A joint of another kind, with the usual width for it and whatever carries over from the one
 * before.
 */
function jointOf(kind: JointKind, thicknessMm: number, from: Joint, unit: Unit): Joint {
  const usual = { hem: 10, 'plug-flange': 15 }[kind as string] ?? 12;
  const widthMm = 'widthMm' in from ? from.widthMm : usualLength(usual, unit);
  const trimMm = 'trimMm' in from ? from.trimMm : 0;
  switch (kind) {
    case 'free':
    case 'butt':
    case 'backed-butt':
      return { kind, trimMm };
    case 'lap':
      return { kind, widthMm };
    case 'joggle':
      return { kind, widthMm, depthMm: thicknessMm };
    case 'hem':
      return { kind, widthMm, gapMm: 0 };
    case 'plug-flange':
      return { kind, widthMm, turnDeg: 0 };
  }
}

/** Fetched when an edge is in hand: a field to choose by typing is heavy. */
const Meets = lazy(() => import('./JointPanel'));

/** What an edge meets, how it is joined to that, and the figures of the joint. */
export function JointFields({ edge }: { edge: Edge }) {
  const { patternEditor, pattern, facts } = usePiece();
  const { unit } = usePreferences();
  const { joint } = edge;
  // Another kind of joint is a step of its own; its figures are fine tuning.
  const setJoint = (next: Joint) =>
    patternEditor.edit(
      setEdge(pattern, edge.id, { joint: next }),
      next.kind === joint.kind ? `joint ${edge.id}` : '',
    );
  return (
    <>
      <Suspense fallback={<Box sx={{ height: 56 }} />}>
        <Meets key={edge.id} edge={edge} />
      </Suspense>
      <Choice
        label="Joined by"
        value={joint.kind}
        options={JOINTS.map((kind) => [kind, JOINT_WORDS[kind]] as const)}
        onChange={(kind) => setJoint(jointOf(kind, facts.thicknessMm, joint, unit))}
      />
      {'trimMm' in joint && (
        <LengthField
          label="Left on to trim at fitting"
          mm={joint.trimMm}
          min={0}
          onChange={(mm) => setJoint({ ...joint, trimMm: mm ?? 0 })}
        />
      )}
      {'widthMm' in joint && (
        <LengthField
          label={
            joint.kind === 'hem'
              ? 'Finished width of the hem'
              : joint.kind === 'plug-flange'
                ? 'Finished width of the flange'
                : 'Overlap'
          }
          mm={joint.widthMm}
          min={0}
          onChange={(mm) => setJoint({ ...joint, widthMm: mm ?? 0 })}
        />
      )}
      {joint.kind === 'joggle' && (
        <LengthField
          label="Step: thickness of the sheet it laps"
          mm={joint.depthMm}
          min={0}
          thin
          onChange={(mm) => setJoint({ ...joint, depthMm: mm ?? 0 })}
        />
      )}
      {joint.kind === 'hem' && (
        <LengthField
          label="Gap inside the hem (0 is closed)"
          mm={joint.gapMm}
          min={0}
          onChange={(mm) => setJoint({ ...joint, gapMm: mm ?? 0 })}
        />
      )}
      {joint.kind === 'plug-flange' && (
        <Choice
          label="The flange lies"
          value={joint.turnDeg > 0 ? 'turned' : 'flat'}
          options={[
            ['flat', 'In line with the piece'],
            ['turned', 'Turned square at the edge'],
          ]}
          onChange={(way) => setJoint({ ...joint, turnDeg: way === 'turned' ? 90 : 0 })}
        />
      )}
    </>
  );
}
