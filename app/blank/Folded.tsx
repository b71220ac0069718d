import Box from '@mui/material/Box';
import Slider from '@mui/material/Slider';
import { Canvas, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useState } from 'react';
import { BufferGeometry, DoubleSide, Float32BufferAttribute, ShapeUtils, Vector2 } from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import type { Development } from '#core/blank/fold/develop';
import type { Vec3 } from '#core/blank/fold/refold';
import { bendSkin, foldedFrames, placed } from '#core/blank/fold/refold';
import { inside, points } from '#core/measure/path';
import type { Vec } from '#core/measure/vector';
import { usePiece } from '../shell/pieceContext';

const BEND_STEPS = 14;

/** The piece folded in space: turned by dragging, folded by the slider in the order the folds are listed. */
export default function Folded({ development }: { development: Development }) {
  const { facts } = usePiece();
  const count = development.folds.length;
  const [done, setDone] = useState(count);
  const angles = development.folds.map((fold, i) => fold.bend.angleDeg * Math.min(1, Math.max(0, done - i)));
  const geometry = usePieceGeometry(development, facts.thicknessMm, angles);
  const reach = Math.hypot(development.size.widthMm, development.size.heightMm);
  const centre = middle(development);
  const moving = Math.min(count, Math.ceil(done));
  return (
    <Box sx={{ position: 'absolute', inset: 0, display: 'flex', flexDirection: 'column' }}>
      <Box
        sx={{ flex: 1, minHeight: 0 }}
        role="img"
        aria-label={`The piece in space, ${Math.floor(done)} of ${count} folds made`}
      >
        <Canvas
          camera={{
            position: [reach * 0.55, -reach * 0.95, reach * 0.85],
            fov: 32,
            near: 1,
            far: reach * 20,
            up: [0, 0, 1],
          }}
        >
          <color attach="background" args={['#a9adb0']} />
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
          </group>
          <Turn />
        </Canvas>
      </Box>
      {count > 0 && (
        <Box sx={{ px: 3, py: 1, bgcolor: 'var(--panel)', display: 'flex', alignItems: 'center', gap: 3 }}>
          <Box className="condensed" sx={{ minWidth: 130, fontSize: '1.1rem', fontWeight: 600 }}>
            {done === 0 ? 'Flat' : `Fold ${moving}: ${Math.round(angles[moving - 1] ?? 0)}°`}
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

/** The drawn face of the sheet and everything else of it (back, edges) as two meshes, from the core's own frames. */
function usePieceGeometry(development: Development, thicknessMm: number, angles: number[]) {
  const key = angles.join();
  return useMemo(() => {
    const frames = foldedFrames(development, key.split(',').map(Number));
    const face: number[] = [];
    const rest: number[] = [];
    const quad = (to: number[], a: Vec3, b: Vec3, c: Vec3, e: Vec3) => to.push(...a, ...b, ...c, ...a, ...c, ...e);
    development.faces.forEach((flat, f) => {
      const frame = frames[f]!;
      const rim = points(
        flat.pieces.map((p) => p.segment),
        0.2,
      );
      const holes = development.holes
        .filter((hole) => inside(hole.centre, rim))
        .map((hole) =>
          Array.from({ length: 28 }, (_, i): Vec => {
            const a = (-2 * Math.PI * i) / 28;
            return [
              hole.centre[0] + (hole.diameterMm / 2) * Math.cos(a),
              hole.centre[1] + (hole.diameterMm / 2) * Math.sin(a),
            ];
          }),
        );
      const all = [rim, ...holes];
      const corners = all.flat();
      const triangles = ShapeUtils.triangulateShape(
        rim.map((p) => new Vector2(...p)),
        holes.map((hole) => hole.map((p) => new Vector2(...p))),
      );
      for (const triangle of triangles) {
        for (const i of triangle) {
          face.push(...placed(frame, corners[i]!, 0));
          rest.push(...placed(frame, corners[i]!, -thicknessMm));
        }
      }
      for (const loop of all) {
        loop.forEach((p, i) => {
          const q = loop[(i + 1) % loop.length]!;
          quad(
            rest,
            placed(frame, p, 0),
            placed(frame, q, 0),
            placed(frame, q, -thicknessMm),
            placed(frame, p, -thicknessMm),
          );
        });
      }
    });
    development.folds.forEach((fold, i) => {
      const skin = bendSkin(fold, frames[fold.parent]!, Number(key.split(',')[i]), BEND_STEPS);
      for (let s = 0; s < BEND_STEPS; s++) {
        const [a, b] = skin.face[s]!;
        const [c, e] = skin.face[s + 1]!;
        const [a2, b2] = skin.back[s]!;
        const [c2, e2] = skin.back[s + 1]!;
        quad(face, a, b, e, c);
        quad(rest, a2, b2, e2, c2);
        quad(rest, a, c, c2, a2);
        quad(rest, b, e, e2, b2);
      }
    });
    const mesh = (positions: number[]) => {
      const geometry = new BufferGeometry();
      geometry.setAttribute('position', new Float32BufferAttribute(positions, 3));
      geometry.computeVertexNormals();
      return geometry;
    };
    return { face: mesh(face), rest: mesh(rest) };
  }, [development, thicknessMm, key]);
}
