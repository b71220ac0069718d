import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { cut } from '#core/card/cut';
import { reshapeSide, setEdge, setSideLength } from '#core/card/edit';
import type { JointKind } from '#core/card/kinds';
import { JOINTS } from '#core/card/kinds';
import { edgeLength, segmentOfSide } from '#core/card/outline';
import type { Edge, Joint } from '#core/card/pattern';
import { arcOf, bulgeOfRadius, bulgeThrough, isStraight } from '#core/measure/segment';
import { add, distance, left, mix, scale, sub, unit } from '#core/measure/vector';
import { meetsOf, setPlan } from '#core/weld/planned';
import type { Unit } from '#core/measure/length';
import { usualLength } from '#core/measure/length';
import { Choice } from '../../forms/Choice';
import { LengthField } from '../../forms/LengthField';
import { usePreferences } from '../../frame/preferences';
import { JOINT_WORDS } from '../../frame/words';
import { EdgeStory } from '../../piece/EdgeStory';
import { usePiece } from '../../piece/pieceContext';
import { AlongEdge } from './AlongEdge';

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

/** An edge at the card stage: its shape, what it meets, how it is joined. */
export function EdgePanel({
  edge,
  place,
  touched,
}: {
  edge: Edge;
  place: ReactNode;
  touched: boolean;
}) {
  const { patternEditor, plan, planEditor, pattern, facts } = usePiece();
  const { show, unit } = usePreferences();
  const { joint } = edge;
  // Another kind of joint is a step of its own; its figures are fine tuning.
  const setJoint = (next: Joint) =>
    patternEditor.edit(
      setEdge(pattern, edge.id, { joint: next }),
      next.kind === joint.kind ? `joint ${edge.id}` : '',
    );
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
        <Typography variant="h2">Edge {edge.letter}</Typography>
        <Typography className="figure">{show(edgeLength(pattern, edge))}</Typography>
      </Box>
      {touched && place}
      {edge.sides.length <= MAX_SIDES ? (
        edge.sides.map((side, i) => (
          <SideShape
            key={side}
            sideId={side}
            said={edge.sides.length > 1 ? `Side ${i + 1} of ${edge.sides.length}` : ''}
          />
        ))
      ) : (
        <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
          A traced curve of {edge.sides.length} sides: drag its corners to shape it.
        </Typography>
      )}
      <TextField
        label="Meets"
        value={meetsOf(plan, edge.id)}
        onChange={(event) =>
          planEditor.edit(
            setPlan(plan, edge.id, { meets: cut(event.target.value, 120) }),
            `meets ${edge.id}`,
          )
        }
        placeholder="What it comes up to: floor edge, old sill …"
      />
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
      <AlongEdge key={edge.id} edge={edge} place={touched ? null : place} />
      <EdgeStory edgeId={edge.id} />
    </>
  );
}

/** More sides than this in one edge are a traced curve, not legs to type. */
const MAX_SIDES = 6;

/** Straight or curved, and how long or how round. */
function SideShape({ sideId, said }: { sideId: string; said: string }) {
  const { patternEditor, pattern } = usePiece();
  const segment = segmentOfSide(pattern, sideId);
  if (!segment) return null;
  const straight = isStraight(segment);
  const chord = distance(segment.a, segment.b);
  const arc = straight ? null : arcOf(segment);
  const rise = straight ? 0 : (segment.bulge * chord) / 2;
  const bow = (riseMm: number) => {
    const middle = mix(segment.a, segment.b, 0.5);
    const via = add(middle, scale(left(unit(sub(segment.b, segment.a))), -riseMm));
    patternEditor.edit(
      reshapeSide(pattern, sideId, bulgeThrough(segment.a, via, segment.b)),
      sideId,
    );
  };
  return (
    <>
      {said && <Typography variant="h3">{said}</Typography>}
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={straight ? 'line' : 'arc'}
        aria-label={said ? `Shape of ${said.toLowerCase()}` : 'Shape of the side'}
        onChange={(_, shape: string | null) =>
          shape && patternEditor.edit(reshapeSide(pattern, sideId, shape === 'line' ? 0 : 0.2))
        }
      >
        <ToggleButton value="line">Straight</ToggleButton>
        <ToggleButton value="arc">Arc</ToggleButton>
      </ToggleButtonGroup>
      {straight ? (
        <LengthField
          label="Length"
          mm={chord}
          min={0.1}
          digits={2}
          onChange={(mm) => {
            const next = mm === null ? null : setSideLength(pattern, sideId, mm);
            if (next?.ok) patternEditor.edit(next.doc, sideId);
          }}
        />
      ) : (
        <Stack direction="row" spacing={1}>
          <LengthField
            label="Radius"
            mm={arc!.radius}
            min={chord / 2}
            onChange={(mm) => {
              const bulge =
                mm && bulgeOfRadius(segment.a, segment.b, mm, segment.bulge > 0 ? 1 : -1);
              if (bulge) patternEditor.edit(reshapeSide(pattern, sideId, bulge));
            }}
          />
          <LengthField
            label="Rise (− is hollow)"
            signed
            mm={rise}
            digits={2}
            onChange={(mm) => mm && bow(mm)}
          />
        </Stack>
      )}
    </>
  );
}
