import { useMemo } from 'react';
import { BufferAttribute, BufferGeometry, DoubleSide } from 'three';
import { onPanel } from '#core/surface/mesh/isoLines';
import type { LaidPanel } from '#core/surface/panel/laidPanel';
import type { Mesh, Vec3 } from '#core/surface/mesh/mesh';
import { vertexAt } from '#core/surface/mesh/mesh';
import type { Way } from '#core/surface/strain/strainMap';
import { Space, geometryOf, useDisposed } from '../../drawing/Space';

type Props = {
  mesh: Mesh;
  /** Laid flat or not yet: its rim, and lines of equal stretch and shrink over it. */
  laid: LaidPanel | null;
  cut: readonly Vec3[] | null;
  tapped: readonly Vec3[];
  /** Whether what was tapped is an outline. */
  joined?: boolean;
  onTap?: (p: Vec3) => void;
};

/**
 * The panel in space: steel, with lines of equal stretch and equal shrink over it, the cut that is
 * looked at, what was tapped.
 */
export default function PanelSpace({ mesh, laid, cut, tapped, joined = true, onTap }: Props) {
  const { geometry, middle, reach } = useMemo(() => {
    const made = new BufferGeometry();
    made.setAttribute('position', new BufferAttribute(Float32Array.from(mesh.vertices), 3));
    made.setIndex(new BufferAttribute(mesh.triangles, 1));
    made.computeVertexNormals();
    made.computeBoundingSphere();
    const { center, radius } = made.boundingSphere!;
    return { geometry: made, middle: [center.x, center.y, center.z] as const, reach: radius * 2 };
  }, [mesh]);
  const lines = useMemo(() => {
    if (!laid) return null;
    const of = (way: Way) =>
      geometryOf(
        laid.lines
          .filter((line) => line.way === way)
          .flatMap(({ places, closed }) => pieces(onPanel(places, mesh), closed)),
        false,
      );
    const rim = [...laid.disc.rim].map((v) => vertexAt(mesh, v));
    return {
      stretch: of('stretch'),
      shrink: dashed(of('shrink')),
      rim: geometryOf(pieces(rim, true), false),
    };
  }, [laid, mesh]);
  const cutLine = useMemo(() => cut && geometryOf(pieces(cut, false), false), [cut]);
  const tappedLine = useMemo(
    () =>
      joined && tapped.length > 1 ? geometryOf(pieces(tapped, tapped.length > 2), false) : null,
    [tapped, joined],
  );
  useDisposed(geometry, lines?.stretch, lines?.shrink, lines?.rim, cutLine, tappedLine);
  return (
    // Something of another size is looked at anew from the start.
    <Space key={reach.toPrecision(2)} reach={reach} from={[0.75, -1.05, 0.9]}>
      <group position={[-middle[0], -middle[1], -middle[2]]}>
        <mesh
          geometry={geometry}
          onClick={(event) => {
            // A drag that turns the view is no touch.
            if (!onTap || event.delta > 4) return;
            event.stopPropagation();
            const { x, y, z } = event.point;
            onTap([x + middle[0], y + middle[1], z + middle[2]]);
          }}
        >
          <meshStandardMaterial
            color="#aab2b8"
            metalness={0.25}
            roughness={0.55}
            side={DoubleSide}
            polygonOffset
            polygonOffsetFactor={2}
            polygonOffsetUnits={2}
          />
        </mesh>
        {lines && (
          <>
            <lineSegments geometry={lines.rim}>
              <lineBasicMaterial color="#1a2530" />
            </lineSegments>
            <lineSegments geometry={lines.stretch}>
              <lineBasicMaterial color="#8a1f0a" />
            </lineSegments>
            <lineSegments geometry={lines.shrink}>
              <lineDashedMaterial color="#0f3f70" dashSize={7} gapSize={4} />
            </lineSegments>
          </>
        )}
        {tapped.map((p, i) => (
          <mesh key={i} position={[...p]}>
            <sphereGeometry args={[reach / 130, 12, 8]} />
            <meshBasicMaterial color="#c2410c" />
          </mesh>
        ))}
        {tappedLine && (
          <lineSegments geometry={tappedLine}>
            <lineBasicMaterial color="#c2410c" depthTest={false} />
          </lineSegments>
        )}
        {cutLine && (
          <lineSegments geometry={cutLine}>
            <lineBasicMaterial color="#c2410c" linewidth={3} depthTest={false} />
          </lineSegments>
        )}
      </group>
    </Space>
  );
}

/** The same with how far along its pieces each corner is, so that it can be dashed. */
function dashed(geometry: BufferGeometry): BufferGeometry {
  const places = geometry.getAttribute('position');
  const far = new Float32Array(places.count);
  for (let i = 1; i < places.count; i++) {
    const step = Math.hypot(
      places.getX(i) - places.getX(i - 1),
      places.getY(i) - places.getY(i - 1),
      places.getZ(i) - places.getZ(i - 1),
    );
    far[i] = far[i - 1]! + (i % 2 === 1 ? step : 0);
  }
  geometry.setAttribute('lineDistance', new BufferAttribute(far, 1));
  return geometry;
}

/** A line as pieces, corner after corner. */
function pieces(line: readonly Vec3[], closed: boolean): number[] {
  const found: number[] = [];
  for (let i = 1; i < line.length + (closed ? 1 : 0); i++)
    found.push(...line[i - 1]!, ...line[i % line.length]!);
  return found;
}
