import CropFree from '@mui/icons-material/CropFree';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import {
  createContext,
  useContext,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import type { MouseEvent, PointerEvent, ReactNode } from 'react';
import type { Box as Bounds } from '#core/measure/path';
import type { Vec } from '#core/measure/vector';

/**
 * How the drawing stands on the screen: pixels for a millimetre, and the point of the drawing in
 * the middle.
 */
type Stand = { scale: number; x: number; y: number };
type Size = { width: number; height: number };

export type View = {
  scale: number;
  /** A point of the drawing in pixels; y is turned over. */
  px: (p: Vec) => Vec;
  /** Size of the drawing on the screen, pixels. */
  width: number;
  height: number;
};

const ViewContext = createContext<View>({ scale: 1, px: (p) => p, width: 0, height: 0 });
export const useView = (): View => useContext(ViewContext);

const useBrowserLayoutEffect = typeof window === 'undefined' ? useEffect : useLayoutEffect;
const FIRST_SIZE: Size = { width: 900, height: 560 };
/** Narrower drawings are on a phone: there is no room for more than letters. */
export const PHONE_PX = 500;
/**
 * Clear ground round the piece for its tags; more at the top where something lies over the drawing.
 */
const MARGIN_PX = 78;
const TOP_PX = 130;

function fitted(bounds: Bounds, size: Size, overlaid: boolean): Stand {
  const w = Math.max(1, bounds.maxX - bounds.minX);
  const h = Math.max(1, bounds.maxY - bounds.minY);
  const small = size.width < PHONE_PX;
  const margin = small ? 56 : MARGIN_PX;
  const top = !overlaid ? margin : small ? 84 : TOP_PX;
  const scale = Math.max(
    0.02,
    Math.min((size.width - 2 * margin) / w, (size.height - margin - top) / h),
  );
  return {
    scale,
    x: (bounds.minX + bounds.maxX) / 2,
    y: (bounds.minY + bounds.maxY) / 2 + (top - margin) / 2 / scale,
  };
}

type Props = {
  /** What is to be seen whole; the drawing is fitted to it until the user moves it. */
  bounds: Bounds;
  ground: 'card' | 'blank' | 'fit';
  label: string;
  children: ReactNode;
  /**
   * Pointer on the drawing: where in millimetres, and pixels for a millimetre. `onDown` returns
   * true to take the pointer away from panning.
   */
  onDown?: (p: Vec, scale: number) => boolean;
  onMove?: (p: Vec, scale: number) => void;
  onUp?: (p: Vec, scale: number) => void;
  /**
   * Touched without dragging: where, and what was touched there (`data-touch` of the mark, `ground`
   * beside the piece).
   */
  onTouch?: (p: Vec, scale: number, what: string | null) => void;
  /** The ground beside the piece was touched: what is in hand is put down. */
  onGround?: () => void;
  overlay?: ReactNode;
};

/**
 * The one drawing that every stage shows: fits itself, pans by dragging the ground, zooms by wheel
 * or pinch.
 */
export function Drawing({
  bounds,
  ground,
  label,
  children,
  onDown,
  onMove,
  onUp,
  onTouch,
  onGround,
  overlay,
}: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const [size, setSize] = useState(FIRST_SIZE);
  const [moved, setMoved] = useState<Stand | null>(null);
  const pointers = useRef(new Map<number, Vec>());
  const taken = useRef(false);
  const stand = moved ?? fitted(bounds, size, overlay !== undefined);

  useBrowserLayoutEffect(() => {
    const element = svg.current!;
    const measure = () => {
      const { width, height } = element.getBoundingClientRect();
      if (width > 0 && height > 0) setSize({ width, height });
    };
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const { scale, x, y } = stand;
  const view = useMemo(
    (): View => ({
      scale,
      px: (p) => [size.width / 2 + (p[0] - x) * scale, size.height / 2 - (p[1] - y) * scale],
      width: size.width,
      height: size.height,
    }),
    [scale, x, y, size],
  );
  const onScreen = (event: { clientX: number; clientY: number }): Vec => {
    const rect = svg.current!.getBoundingClientRect();
    return [event.clientX - rect.left, event.clientY - rect.top];
  };
  const toMm = ([sx, sy]: Vec): Vec => [
    x + (sx - size.width / 2) / scale,
    y - (sy - size.height / 2) / scale,
  ];
  const zoomAt = (at: Vec, by: number) => {
    const next = Math.min(200, Math.max(0.02, scale * by));
    const [mx, my] = toMm(at);
    setMoved({
      scale: next,
      x: mx - (at[0] - size.width / 2) / next,
      y: my + (at[1] - size.height / 2) / next,
    });
  };

  // React's wheel listener is passive; this one must keep the page from scrolling.
  const wheel = useRef(zoomAt);
  useEffect(() => {
    wheel.current = zoomAt;
  });
  useEffect(() => {
    const element = svg.current!;
    const turned = (event: WheelEvent) => {
      event.preventDefault();
      const rect = element.getBoundingClientRect();
      wheel.current(
        [event.clientX - rect.left, event.clientY - rect.top],
        Math.exp(-event.deltaY * 0.0015),
      );
    };
    element.addEventListener('wheel', turned, { passive: false });
    return () => element.removeEventListener('wheel', turned);
  }, []);
  // A page of paper is not as wide as the screen: all of the drawing is laid into what it gets there.
  useEffect(() => {
    const element = svg.current!;
    const whole = () =>
      element.setAttribute('viewBox', `0 0 ${element.clientWidth} ${element.clientHeight}`);
    const asBefore = () => element.removeAttribute('viewBox');
    window.addEventListener('beforeprint', whole);
    window.addEventListener('afterprint', asBefore);
    return () => {
      window.removeEventListener('beforeprint', whole);
      window.removeEventListener('afterprint', asBefore);
    };
  }, []);

  const down = (event: PointerEvent<SVGSVGElement>) => {
    const at = onScreen(event);
    pointers.current.set(event.pointerId, at);
    taken.current = pointers.current.size === 1 && (onDown?.(toMm(at), scale) ?? false);
    if (!taken.current) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    // What is dragged may change what the drawing is fitted to; the view must hold still under the
    // hand.
    setMoved(stand);
  };
  const move = (event: PointerEvent<SVGSVGElement>) => {
    const at = onScreen(event);
    const last = pointers.current.get(event.pointerId);
    if (!last || taken.current) {
      onMove?.(toMm(at), scale);
      return;
    }
    // A touch that hardly moves is a pick, not a pan: the capture would take the click away from
    // what was touched.
    const panning = event.currentTarget.hasPointerCapture(event.pointerId);
    if (!panning && Math.hypot(at[0] - last[0], at[1] - last[1]) < 5) return;
    if (!panning) event.currentTarget.setPointerCapture(event.pointerId);
    pointers.current.set(event.pointerId, at);
    const other = [...pointers.current].find(([id]) => id !== event.pointerId)?.[1];
    if (other) {
      const spread = (p: Vec) => Math.hypot(p[0] - other[0], p[1] - other[1]);
      zoomAt(
        [(at[0] + other[0]) / 2, (at[1] + other[1]) / 2],
        spread(at) / Math.max(1, spread(last)),
      );
    } else {
      setMoved({ scale, x: x - (at[0] - last[0]) / scale, y: y + (at[1] - last[1]) / scale });
    }
  };
  const up = (event: PointerEvent<SVGSVGElement>) => {
    pointers.current.delete(event.pointerId);
    if (taken.current) onUp?.(toMm(onScreen(event)), scale);
    taken.current = false;
  };

  const touched = (event: MouseEvent<SVGSVGElement>) => {
    const what = event.target instanceof Element ? event.target.closest('[data-touch]') : null;
    onTouch?.(toMm(onScreen(event)), scale, what?.getAttribute('data-touch') ?? null);
  };

  return (
    <Box sx={{ position: 'absolute', inset: 0 }}>
      <Ground kind={ground} />
      <svg
        ref={svg}
        role="group"
        aria-label={label}
        width="100%"
        height="100%"
        style={{
          display: 'block',
          position: 'relative',
          touchAction: 'none',
          userSelect: 'none',
          willChange: 'transform',
        }}
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={up}
        onClick={onTouch && touched}
      >
        <rect
          width="100%"
          height="100%"
          fill="transparent"
          onClick={onGround}
          data-touch="ground"
        />
        <ViewContext.Provider value={view}>{children}</ViewContext.Provider>
      </svg>
      <Box
        sx={{
          position: 'absolute',
          right: 10,
          bottom: 10,
          bgcolor: 'var(--panel)',
          border: '1.5px solid var(--rule)',
        }}
      >
        <IconButton aria-label="Fit the drawing to the screen" onClick={() => setMoved(null)}>
          <CropFree />
        </IconButton>
      </Box>
      {overlay}
    </Box>
  );
}

/**
 * What the piece lies on: a bench top for the card, plain paper for the rest. Under the drawing, so
 * that it is painted once.
 */
function Ground({ kind }: { kind: Props['ground'] }) {
  if (kind !== 'card')
    return <Box sx={{ position: 'absolute', inset: 0, bgcolor: 'var(--paper)' }} />;
  return (
    <svg width="100%" height="100%" style={{ position: 'absolute', inset: 0 }} aria-hidden>
      <defs>
        <pattern id="bench-grain" width="220" height="46" patternUnits="userSpaceOnUse">
          <rect width="220" height="46" fill="var(--bench-top)" />
          <path
            d="M0 12c60-6 90 7 220 0M0 31c40 6 130-8 220 0M0 45.5h220"
            stroke="var(--bench-grain)"
            fill="none"
            strokeWidth="1.2"
          />
        </pattern>
      </defs>
      <rect width="100%" height="100%" fill="url(#bench-grain)" />
    </svg>
  );
}
