import { Canvas, useThree } from '@react-three/fiber';
import type { ReactNode } from 'react';
import { useEffect } from 'react';
import { BufferGeometry, Float32BufferAttribute } from 'three';
import { Guarded } from '../frame/Guarded';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';

/**
 * A view in space: dragging turns it, the wheel brings it nearer. `reach` is about how large what
 * is shown is, mm.
 */
export function Space({
  reach,
  from,
  children,
}: {
  reach: number;
  from: [number, number, number];
  children: ReactNode;
}) {
  return (
    <Guarded
      what="The view in space"
      below={9}
      advice="This browser draws nothing in space (WebGL is off, or too much of it is open in other tabs). All figures stand; the flat drawing shows the same piece."
    >
      <Canvas
        dpr={[1, 2]}
        frameloop="demand"
        gl={{ antialias: true, alpha: true }}
        camera={{
          position: [from[0] * reach, from[1] * reach, from[2] * reach],
          fov: 32,
          near: 1,
          far: reach * 20,
          up: [0, 0, 1],
        }}
      >
        <hemisphereLight args={['#fdf6e6', '#8a8172', 2.6]} />
        <directionalLight position={[reach, -reach, reach * 1.6]} intensity={2.6} />
        <directionalLight position={[-reach, reach * 0.4, reach]} intensity={1.4} />
        {children}
        <Turn />
      </Canvas>
    </Guarded>
  );
}

function Turn() {
  const { camera, gl, invalidate } = useThree();
  useEffect(() => {
    const controls = new OrbitControls(camera, gl.domElement);
    controls.addEventListener('change', () => invalidate());
    return () => controls.dispose();
  }, [camera, gl, invalidate]);
  return null;
}

/**
 * Gives geometries back to the graphics card when they are replaced or the view goes: whoever makes
 * them has to. The list is as long at each call.
 */
export function useDisposed(...geometries: readonly (BufferGeometry | null | undefined)[]): void {
  useEffect(
    () => () => {
      for (const one of geometries) one?.dispose();
    },
    // As the list itself is made anew each time, what is in it is what this hangs on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    geometries,
  );
}

/** Triangles as a geometry, shaded or not. */
export function geometryOf(positions: readonly number[], shaded: boolean): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new Float32BufferAttribute(positions, 3));
  if (shaded) geometry.computeVertexNormals();
  return geometry;
}
