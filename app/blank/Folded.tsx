import Box from '@mui/material/Box';
import Slider from '@mui/material/Slider';
import { Canvas, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useState } from 'react';
import { BufferGeometry, DoubleSide, Float32BufferAttribute } from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import type { Development } from '#core/blank/fold/developed';
import { points } from '#core/measure/path';
import type { Vec } from '#core/measure/vector';
import { usePiece } from '../piece/pieceContext';
import type { PieceMesh } from './pieceMesh';
import { pieceMesh } from './pieceMesh';

/** The piece folded in space: turned by dragging, folded by the slider in the order the folds are listed. */
export default function Folded({ development }: { development: Development }) {
  const { facts, pattern } = usePiece();
  const count = development.folds.length;
  const [done, setDone] = useState(count);
  const { thicknessMm } = facts;
  const mesh = useMemo(
    // Laps, flanges and hems are made last, once every fold is.
    () => pieceMesh(development, pattern, thicknessMm, anglesAt(development, done), done === count),
    [development, pattern, thicknessMm, done, count],
  );
  const geometry = useGeometry(mesh);
  const reach = Math.hypot(development.size.widthMm, development.size.heightMm);
  const centre = middle(development);
  const moving = Math.min(count, Math.ceil(done));
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
        <Canvas
          dpr={[1, 2]}
          frameloop="demand"
          gl={{ antialias: true, alpha: true }}
          camera={{
            position: [reach * 0.55, -reach * 0.95, reach * 0.85],
            fov: 32,
            near: 1,
            far: reach * 20,
            up: [0, 0, 1],
          }}
        >
          <hemisphereLight args={['#fdf6e6', '#8a8172', 2.6]} />
          <directionalLight position={[reach, -reach, reach * 1.6]} intensity={2.6} />
          <directionalLight position={[-reach, reach * 0.4, reach]} intensity={1.4} />
          <group position={[-centre[0], -centre[1], 0]}>
            <mesh geometry={geometry.face}>
              <meshStandardMaterial color="#3a74b8" metalness={0.15} roughness={0.6} side={DoubleSide} />
            </mesh>
            <mesh geometry={geometry.rest}>
              <meshStandardMaterial color="#c3c9cd" metalness={0.3} roughness={0.5} side={DoubleSide} />
            </mesh>
            <lineSegments geometry={geometry.rims}>
              <lineBasicMaterial color="#1a2530" transparent opacity={0.75} />
            </lineSegments>
          </group>
          <Turn />
        </Canvas>
      </Box>
      {count > 0 && (
        <Box sx={{ px: 3, py: 1, bgcolor: 'var(--panel)', display: 'flex', alignItems: 'center', gap: 3 }}>
          <Box className="condensed" sx={{ minWidth: 130, fontSize: '1.1rem', fontWeight: 600 }}>
            {done === 0 ? 'Flat' : `Fold ${moving}: ${Math.round(anglesAt(development, done)[moving - 1] ?? 0)}°`}
          </Box>
          <Slider
            value={done}
            min={0}
            max={count}
            step={0.02}
            marks={development.folds.map((_, i) => ({ value: i + 1, label: i + 1 }))}
            onChange={(_, value) => setDone(value as number)}
            aria-label="Fold from flat to finished"
          />
        </Box>
      )}
    </Box>
  );
}

/** The angle of each fold, degrees, when `done` folds are made: 2.5 is two and half of the third. */
const anglesAt = ({ folds }: Development, done: number): number[] =>
  folds.map((fold, i) => fold.bend.angleDeg * Math.min(1, Math.max(0, done - i)));

function middle(development: Development): Vec {
  const base = points(development.faces[development.order[0]!]!.pieces.map((p) => p.segment));
  return [base.reduce((sum, p) => sum + p[0], 0) / base.length, base.reduce((sum, p) => sum + p[1], 0) / base.length];
}

/** Dragging turns the piece, the wheel brings it nearer. */
function Turn() {
  const { camera, gl, invalidate } = useThree();
  useEffect(() => {
    const controls = new OrbitControls(camera, gl.domElement);
    controls.addEventListener('change', () => invalidate());
    return () => controls.dispose();
  }, [camera, gl, invalidate]);
  return null;
}

function useGeometry(mesh: PieceMesh) {
  return useMemo(() => {
    const of = (positions: number[], shaded: boolean) => {
      const geometry = new BufferGeometry();
      geometry.setAttribute('position', new Float32BufferAttribute(positions, 3));
      if (shaded) geometry.computeVertexNormals();
      return geometry;
    };
    return { face: of(mesh.face, true), rest: of(mesh.rest, true), rims: of(mesh.rims, false) };
  }, [mesh]);
}
