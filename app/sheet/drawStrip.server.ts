import { toDxf } from '#core/format/dxf';
import { toSvg } from '#core/format/svg';
import { checkingStripOf } from '#core/sheet/checkingStrip';
import { tiledPdf } from './pdf.server';
import { doing } from '../workers/task';
import type { StripDrawn } from './stripFile';
import { drawStrip } from './stripFile';

export const drawStripNow = doing(
  drawStrip,
  async ({ profile, lie, as, head }): Promise<StripDrawn> => {
    const found = checkingStripOf(profile, lie);
    if (!found.ok) return found;
    const { layers, labels } = found;
    if (as === 'svg') return { ok: true, body: toSvg(layers, `${head.title}, ${profile.name}`) };
    if (as === 'dxf') return { ok: true, body: toDxf(layers) };
    return tiledPdf(layers, labels, head, null);
  },
);
