import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useRevalidator } from 'react-router';
import { biteLearnt } from '#core/shape/biteStrips';
import type { ShapeStep } from '#core/shape/shapeStep';
import { FigureField } from '../forms/FigureField';
import { usePost } from '../forms/usePost';
import { FoldAway } from '../frame/FoldAway';
import { Told } from '../frame/Told';
import { usePiece } from '../piece/pieceContext';

/** Where a rim tore or folded over: from then on the shop's limit for this sheet. */
export function ItWentWrong({ step, count }: { step: ShapeStep; count: number }) {
  const { id, metal, facts, shop } = usePiece();
  const { revalidate } = useRevalidator();
  const post = usePost<object>('/shop/readings', () => void revalidate());
  const { strain = 0, freeMm = 0 } = step.figures;
  const learnt = biteLearnt(shop, metal, facts.thicknessMm, strain > 0 ? 'stretch' : 'shrink');
  // What the bites made till now have done to it, or what it was to have in the end.
  const reached =
    learnt && count > 0 && freeMm > 0
      ? Math.abs(Math.expm1((count * learnt.perBiteMm) / freeMm))
      : Math.abs(strain);
  const [at, setAt] = useState<number | null>(null);
  const [kept, setKept] = useState(false);
  const share = at ?? reached;
  const torn = strain > 0;
  const keep = async () => {
    const reading = {
      metal: metal.id,
      thicknessMm: facts.thicknessMm,
      tool: null,
      piece: id,
      at: new Date().toISOString(),
      kind: torn ? 'torn' : 'wrinkled',
      strain: share,
    };
    if (await post.send({ intent: 'add', of: { list: 'limitsSeen', reading } })) setKept(true);
  };
  return (
    <FoldAway title={torn ? 'It tore' : 'It folded over'}>
      <Box sx={{ display: 'grid', gap: 1 }}>
        <Typography variant="body2">
          Written down, it is this shop’s limit for this sheet: the next flange is told before it is
          cut.
        </Typography>
        <FigureField
          label={torn ? 'Stretched by then' : 'Gathered by then'}
          value={Math.round(share * 1000) / 10}
          min={0.1}
          max={200}
          unit="%"
          wrong="Percent of the rim’s length, over 0."
          onChange={(pct) => setAt(pct / 100)}
        />
        <Button
          variant="outlined"
          disabled={kept || post.state === 'busy'}
          onClick={() => void keep()}
        >
          {kept ? 'Written down' : 'Write it down'}
        </Button>
        {post.problem && <Told>{post.problem}</Told>}
      </Box>
    </FoldAway>
  );
}
