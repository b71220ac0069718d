import Box from '@mui/material/Box';
import { useMemo } from 'react';
import type { BufferGeometry } from 'three';
import { DoubleSide, Matrix4 } from 'three';
import type { Development } from '#core/blank/fold/developed';
import { composed, inverse } from '#core/blank/fold/order/foldTransforms';
import { poseOf } from '#core/blank/fold/order/pose';
import type { OrderStep } from '#core/blank/fold/order/solve';
import { foldedFrames } from '#core/blank/fold/refold';
import type { Brake } from '#core/machine/brake';
import { sectionOf } from '#core/machine/brake';
import { usePiece } from '../piece/pieceContext';
import { Space, geometryOf, useDisposed } from '../drawing/Space';
import { Sheet } from './Sheet';
import { pieceMesh } from './pieceMesh';
import { prism } from './prism';

type Props = {
  development: Development;
  brake: Brake;
  step: OrderStep;
  anglesDeg: readonly number[];
  turnedAfter: readonly string[];
};

/**
 * Length of bed, apron and beam drawn beyond either end of the line, as far as the machine reaches,
 * mm.
 */
const BESIDE_MM = 90;

/**
 * The machine as one stands before it, the piece in it as it is held for a step: every fold at the
 * angle it has.
 */
export default function AtMachine({ development, brake, step, anglesDeg, turnedAfter }: Props) {
  const { facts, pattern } = usePiece();
  const { thicknessMm } = facts;
  const fold = development.folds[step.fold]!;
  const pose = useMemo(() => poseOf(fold, step.clamped), [fold, step.clamped]);
  const mesh = useMemo(
    () => pieceMesh(development, pattern, thicknessMm, anglesDeg, true, turnedAfter),
    [development, pattern, thicknessMm, anglesDeg, turnedAfter],
  );
  const lie = useMemo(() => {
    const held = step.clamped === 'base' ? fold.parent : fold.child;
    const { x, y, z, origin } = composed(
      pose.onMachine,
      inverse(foldedFrames(development, anglesDeg)[held]!),
    );
    return new Matrix4().set(
      x[0],
      y[0],
      z[0],
      origin[0],
      x[1],
      y[1],
      z[1],
      origin[1],
      x[2],
      y[2],
      z[2],
      origin[2],
      0,
      0,
      0,
      1,
    );
  }, [development, anglesDeg, fold, pose, step.clamped]);
  const reach = Math.hypot(development.size.widthMm, development.size.heightMm);
  const parts = useMemo(
    () => partsAlong(brake, step, pose.line, thicknessMm, reach),
    [brake, step, pose.line, thicknessMm, reach],
  );
  const middle = (pose.line[0] + pose.line[1]) / 2;
  return (
    <Box
      sx={{
        position: 'absolute',
        inset: 0,
        background: 'radial-gradient(ellipse at 50% 62%, var(--bench-top) 0%, var(--paper) 72%)',
      }}
      role="img"
      aria-label={`Fold ${step.fold + 1} in the machine, in space`}
    >
      <Space reach={reach} from={[1.5, -1.35, 1.05]}>
        <group position={[0, -middle, 0]}>
          {parts.map(({ name, geometry }, i) => (
            <MachinePart key={i} name={name} geometry={geometry} />
          ))}
          <group matrixAutoUpdate={false} matrix={lie}>
            <Sheet mesh={mesh} />
          </group>
        </group>
      </Space>
    </Box>
  );
}

/** One part of the machine; of the beam no more than that it is there. */
function MachinePart({ name, geometry }: { name: string; geometry: BufferGeometry }) {
  useDisposed(geometry);
  return (
    <mesh geometry={geometry}>
      <meshStandardMaterial
        color={name === 'bar' ? '#8d6f4d' : name === 'apron' ? '#9aa39b' : '#6d756f'}
        metalness={0.2}
        roughness={0.7}
        transparent={name === 'beam'}
        opacity={name === 'beam' ? 0.3 : 1}
        side={DoubleSide}
        depthWrite={name !== 'beam'}
      />
    </mesh>
  );
}

/**
 * The parts of a machine as solids along the line: fingers where they stand, else the bar; bed,
 * apron and beam beyond its ends.
 */
function partsAlong(
  brake: Brake,
  step: OrderStep,
  line: readonly [number, number],
  thicknessMm: number,
  reach: number,
) {
  const found = sectionOf(brake, thicknessMm);
  if (!found.ok) return [];
  const spare = Math.max(0, Math.min(BESIDE_MM, (brake.lengthMm - (line[1] - line[0])) / 2));
  const [from, to] = [line[0] - spare, line[1] + spare];
  const fingers =
    step.fingersMm && step.fingersAtMm
      ? step.fingersMm.map((width, i): [number, number] => [
          line[0] + step.fingersAtMm![i]!,
          line[0] + step.fingersAtMm![i]! + width,
        ])
      : null;
  const far = Math.max(120, reach * 0.3);
  return found.parts.flatMap(({ name, section }) => {
    const held = section.map(
      ([x, z]) =>
        [
          Math.max(-far, Math.min(far, x)),
          Math.max(-far, Math.min(brake.noseHeightMm + 40, z)),
        ] as const,
    );
    // A bench farther below than is drawn is not drawn.
    if (held.every(([, z]) => z === held[0]![1])) return [];
    // The apron swings with the sheet: at rest it would stand before it.
    const spans: [number, number][] = name === 'bar' && fingers ? fingers : [[from, to]];
    return spans.map(([a, b]) => ({ name, geometry: geometryOf(prism(held, a, b), true) }));
  });
}
