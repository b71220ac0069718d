import type { Vec } from '#core/measure/vector';
import { scaleFrame } from '#core/picture/scaleFrame';
import { runToCompletion } from '#core/measure/runToCompletion';
import { trace } from '#core/picture/trace';

/** Pixels to a millimetre of what is looked at, and of bench round the paper, mm. */
const [SCALE, BENCH] = [3, 30];

/**
 * Looks once at a card that is only drawn, so that the code is compiled and quick when a photograph
 * comes: the first look of a new worker takes nearly twice as long as the next.
 */
export function warmUp(): void {
  const { widthMm, heightMm, black } = scaleFrame('a4');
  const canvas = new OffscreenCanvas((widthMm + 2 * BENCH) * SCALE, (heightMm + 2 * BENCH) * SCALE);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.fillStyle = 'rgb(140,110,80)';
  context.fillRect(0, 0, canvas.width, canvas.height);
  const at = ([x, y]: Vec): Vec => [(BENCH + x) * SCALE, (BENCH + heightMm - y) * SCALE];
  const filled = (polygon: readonly Vec[], colour: string) => {
    context.fillStyle = colour;
    context.beginPath();
    for (const p of polygon) context.lineTo(...at(p));
    context.fill();
  };
  filled(
    [
      [0, 0],
      [widthMm, 0],
      [widthMm, heightMm],
      [0, heightMm],
    ],
    'rgb(236,236,232)',
  );
  for (const polygon of black) filled(polygon, 'rgb(22,22,24)');
  filled(
    [
      [55, 60],
      [150, 66],
      [154, 170],
      [100, 215],
      [58, 205],
    ],
    'rgb(214,184,130)',
  );
  filled(
    [
      [80, 90],
      [88, 90],
      [88, 98],
      [80, 98],
    ],
    'rgb(236,236,232)',
  );
  const { width, height } = canvas;
  runToCompletion(
    trace(
      { width, height, data: context.getImageData(0, 0, width, height).data },
      { kind: 'paper', paper: 'a4' },
    ),
  );
}
