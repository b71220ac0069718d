import Box from '@mui/material/Box';
import Slider from '@mui/material/Slider';
import { useMemo, useState } from 'react';
import { Quaternion, Vector3 } from 'three';
import type { Development } from '#core/blank/fold/developed';
import { points } from '#core/measure/path';
import type { Vec } from '#core/measure/vector';
import { usePiece } from '../piece/pieceContext';
import type { Water } from '#core/blank/fold/water/water';
import { WaterMarks } from './WaterMarks';
import { Space } from '../drawing/Space';
import { Sheet } from './Sheet';
import type { FoldRow } from '../folding/foldRows';
import { anglesAt } from '../folding/foldRows';
import { pieceMesh } from './pieceMesh';

type Props = { development: Development; rows: readonly FoldRow[]; water: Water | null };

/**
 * The piece folded in space: turned by dragging, folded by the slider in the order of folding, or
 * as listed where there is none.
 */
export default function Folded({ development, rows: ordered, water }: Props) {
  const { facts, pattern } = usePiece();
  const { folds } = development;
  const rows = useMemo(
    (): readonly FoldRow[] =>
      ordered.length > 0
        ? ordered
        : folds.map(({ bend }, fold) => ({
            fold,
            by: 'hand',
            fromDeg: 0,
            toDeg: bend.angleDeg,
            done: false,
          })),
    [ordered, folds],
  );
  const count = rows.length;
  const [set, setDone] = useState<number | null>(null);
  const done = Math.min(set ?? count, count);
  const { thicknessMm } = facts;
  const angles = useMemo(() => anglesAt(folds.length, rows, done), [folds, rows, done]);
  const mesh = useMemo(
    // Laps, flanges and hems are made last, once every fold is.
    () => pieceMesh(development, pattern, thicknessMm, angles, done === count),
    [development, pattern, thicknessMm, angles, done, count],
  );
  const reach = Math.hypot(development.size.widthMm, development.size.heightMm);
  const centre = middle(development);
  // Where it is known how it lies on the vehicle it is shown so.
  const lie = useMemo(
    () =>
      new Quaternion().setFromUnitVectors(
        new Vector3(...(water?.lying.up ?? [0, 0, 1])),
        new Vector3(0, 0, 1),
      ),
    [water],
  );
  const moving = rows[Math.min(count, Math.ceil(done)) - 1];
  return (
    <Box sx={{ position: 'absolute', inset: 0, display: 'flex', flexDirection: 'column' }}>
      <Box
        sx={{
          flex: 1,
          minHeight: 0,
          background: 'radial-gradient(ellipse at 50% 62%, var(--bench-top) 0%, var(--paper) 72%)',
        }}
        role="img"
        aria-label={`The piece in space, ${Math.floor(done)} of ${count} folds made`}
      >
        <Space reach={reach} from={[0.55, -0.95, 0.85]}>
          <group quaternion={lie}>
            <group position={[-centre[0], -centre[1], 0]}>
              <Sheet mesh={mesh} />
              {/* Where the water goes is reckoned for the finished piece. */}
              {water && done === count && (
                <WaterMarks development={development} water={water} reach={reach} />
              )}
            </group>
          </group>
        </Space>
      </Box>
      {count > 0 && (
        <Box
          sx={{
            px: 3,
            py: 1,
            bgcolor: 'var(--panel)',
            display: 'flex',
            alignItems: 'center',
            gap: 3,
          }}
        >
          <Box className="condensed" sx={{ minWidth: 130, fontSize: '1.1rem', fontWeight: 600 }}>
            {moving ? `Fold ${moving.fold + 1}: ${Math.round(angles[moving.fold] ?? 0)}°` : 'Flat'}
          </Box>
          <Slider
            value={done}
            min={0}
            max={count}
            step={0.02}
            // Each mark is the number of the fold that is made there.
            marks={rows.map(({ fold }, i) => ({ value: i + 1, label: fold + 1 }))}
            onChange={(_, value) => setDone(value as number)}
            aria-label="Fold from flat to finished"
          />
        </Box>
      )}
    </Box>
  );
}

function middle(development: Development): Vec {
  const base = points(development.faces[development.order[0]!]!.pieces.map((p) => p.segment));
  return [
    base.reduce((sum, p) => sum + p[0], 0) / base.length,
    base.reduce((sum, p) => sum + p[1], 0) / base.length,
  ];
}
