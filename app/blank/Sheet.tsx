import { useMemo } from 'react';
import { DoubleSide } from 'three';
import { geometryOf, useDisposed } from '../drawing/Space';
import type { PieceMesh } from './pieceMesh';

/** The piece as sheet: the side that is drawn in blue, its back in zinc, its rims as lines. */
export function Sheet({ mesh }: { mesh: PieceMesh }) {
  const geometry = useMemo(
    () => ({
      face: geometryOf(mesh.face, true),
      rest: geometryOf(mesh.rest, true),
      rims: geometryOf(mesh.rims, false),
    }),
    [mesh],
  );
  useDisposed(geometry.face, geometry.rest, geometry.rims);
  return (
    <>
      <mesh geometry={geometry.face}>
        <meshStandardMaterial color="#3a74b8" metalness={0.15} roughness={0.6} side={DoubleSide} />
      </mesh>
      <mesh geometry={geometry.rest}>
        <meshStandardMaterial color="#c3c9cd" metalness={0.3} roughness={0.5} side={DoubleSide} />
      </mesh>
      <lineSegments geometry={geometry.rims}>
        <lineBasicMaterial color="#1a2530" transparent opacity={0.75} />
      </lineSegments>
    </>
  );
}
