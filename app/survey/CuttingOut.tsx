import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { cut } from '#core/card/cut';
import { LAYERS } from '#core/survey/kinds';
import type { LayerCut } from '#core/survey/pieceSurvey';
import { inHand } from '#core/survey/inHand';
import { LaterMomentField } from '../forms/LaterMomentField';
import { Choice } from '../forms/Choice';
import { LengthField } from '../forms/LengthField';
import { Moment } from '../frame/Moment';
import { Told } from '../frame/Told';
import { usePreferences } from '../frame/preferences';
import { PiecePictures } from '../piece/PiecePictures';
import { usePiece } from '../piece/pieceContext';
import { LAYER_WORDS, surveyWarningSaid } from '../piece/road/surveyWords';
import { BraceForm, NEW_BRACE } from './BraceForm';
import { LayerPicture } from './LayerPicture';
import { usePieceSurvey } from './usePieceSurvey';
import { useSurvey } from './useSurvey';

/** What holds the opening, where each layer is cut, and that the old metal is out. */
export function CuttingOut() {
  const { facts, pattern } = usePiece();
  const { verdict } = usePieceSurvey();
  const { show } = usePreferences();
  const letterOf = (id: string) => pattern.edges.find((edge) => edge.id === id)?.letter ?? '?';
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { lg: '1fr 360px' },
        gap: 3,
        alignItems: 'start',
      }}
    >
      <Box sx={{ display: 'grid', gap: 3, minWidth: 0 }}>
        {facts.structural && (
          <Box sx={{ borderLeft: '6px double var(--torch)', pl: 1.4 }}>
            <b>It holds the vehicle up.</b> Brace and measure before cutting, stagger the cuts of
            the layers, never cut through all skins in one line. Follow the maker’s and local
            inspection rules, and have a licensed person judge it.
          </Box>
        )}
        {(verdict?.warnings ?? []).map((warning, i) => (
          <Told key={i}>{surveyWarningSaid(warning, show, letterOf)}</Told>
        ))}
        <Braces />
        <Layers />
      </Box>
      <CutOutRecord />
    </Box>
  );
}

function Braces() {
  const { all, points } = useSurvey();
  const { draft, set } = usePieceSurvey();
  const braces = inHand(all, 'brace');
  const [open, setOpen] = useState<string | null | undefined>(undefined);
  const nameOf = (id: string | null) => points.find((point) => point.id === id)?.name;
  return (
    <Box component="section" aria-label="Braces">
      <Box sx={{ display: 'flex', alignItems: 'center', mb: 0.5 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          What holds the opening
        </Typography>
        <Button variant="outlined" color="inherit" onClick={() => setOpen(null)}>
          New brace
        </Button>
      </Box>
      {braces.length === 0 && open === undefined && (
        <Typography sx={{ color: 'var(--pencil)' }}>
          No brace is written down for this vehicle yet.
        </Typography>
      )}
      {braces.map((brace) => {
        const on = draft.braces.includes(brace.id);
        const ends = [nameOf(brace.from), nameOf(brace.to)].filter(Boolean).join(' to ');
        return brace.id === open ? (
          <BraceForm
            key={brace.id}
            id={brace.id}
            initial={brace}
            onDone={() => setOpen(undefined)}
          />
        ) : (
          <Box
            key={brace.id}
            sx={{
              display: 'flex',
              alignItems: 'center',
              gap: 1,
              borderTop: '1px solid var(--rule)',
              py: 0.5,
            }}
          >
            <FormControlLabel
              sx={{ flex: 1, m: 0 }}
              control={
                <Checkbox
                  checked={on}
                  onChange={() =>
                    set({
                      braces: on
                        ? draft.braces.filter((id) => id !== brace.id)
                        : [...draft.braces, brace.id],
                    })
                  }
                />
              }
              label={
                <Box>
                  <b>{brace.name}</b>
                  {ends && ` · ${ends}`}
                  <Box sx={{ color: 'var(--pencil)', fontSize: '0.92rem' }}>
                    {brace.made && `${brace.made} · `}
                    {brace.in === null ? (
                      'not in yet'
                    ) : (
                      <>
                        in since <Moment at={brace.in} />
                        {brace.out !== null && (
                          <>
                            , out since <Moment at={brace.out} />
                          </>
                        )}
                      </>
                    )}
                  </Box>
                </Box>
              }
            />
            <Button
              size="small"
              color="inherit"
              onClick={() => setOpen(brace.id)}
              aria-label={`Change ${brace.name}`}
            >
              Change
            </Button>
          </Box>
        );
      })}
      {open === null && (
        <BraceForm
          id={null}
          initial={NEW_BRACE}
          onDone={(made) => {
            // A brace that is made here holds this piece.
            if (made) set({ braces: [...draft.braces, made] });
            setOpen(undefined);
          }}
        />
      )}
    </Box>
  );
}

function Layers() {
  const { pattern, shop } = usePiece();
  const { draft, set } = usePieceSurvey();
  const { show } = usePreferences();
  const [fresh, setFresh] = useState<Partial<LayerCut>>({});
  const [missing, setMissing] = useState(false);
  const edges = pattern.edges;
  const edge =
    fresh.edge ?? draft.layerCuts[draft.layerCuts.length - 1]?.edge ?? edges[0]?.id ?? '';
  const letterOf = (id: string) => edges.find((one) => one.id === id)?.letter ?? '?';
  const used = [...new Set(draft.layerCuts.map((one) => one.edge))];
  const next =
    LAYERS.find((layer) => !draft.layerCuts.some((one) => one.layer === layer)) ?? 'outer';
  return (
    <Box component="section" aria-label="Where the layers are cut">
      <Typography variant="h2" gutterBottom>
        Where each layer is cut
      </Typography>
      <Typography sx={{ mb: 1 }}>
        Of a section with more than one skin: neighbouring layers are cut at least{' '}
        <span className="figure">{show(shop.layersApartMm)}</span> apart, so that no line of
        weakness runs through all of them.
      </Typography>
      {used.map((id) => (
        <Box key={id} sx={{ mb: 1 }}>
          <LayerPicture
            cuts={draft.layerCuts}
            edge={id}
            letter={letterOf(id)}
            apartMm={shop.layersApartMm}
          />
        </Box>
      ))}
      {draft.layerCuts.map((one, i) => (
        <Box
          key={i}
          sx={{ display: 'flex', gap: 1, alignItems: 'center', borderTop: '1px solid var(--rule)' }}
        >
          <Box sx={{ flex: 1 }}>
            <b>{LAYER_WORDS[one.layer]}</b> cut <span className="figure">{show(one.inMm)}</span> in
            from edge {letterOf(one.edge)}
          </Box>
          <Button
            size="small"
            color="inherit"
            onClick={() => set({ layerCuts: draft.layerCuts.filter((_, k) => k !== i) })}
            aria-label={`Take off the cut of the ${LAYER_WORDS[one.layer].toLowerCase()}`}
          >
            Take off
          </Button>
        </Box>
      ))}
      {edges.length === 0 ? (
        <Typography sx={{ color: 'var(--pencil)' }}>
          Cuts are measured in from an edge of the card: make the card first.
        </Typography>
      ) : (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { sm: '1.3fr 1fr 1fr auto' },
            gap: 1,
            mt: 1,
            alignItems: 'start',
          }}
        >
          <Choice
            label="Layer"
            value={fresh.layer ?? next}
            onChange={(layer) => setFresh({ ...fresh, layer })}
            options={LAYERS.map((layer) => [layer, LAYER_WORDS[layer]] as const)}
          />
          <Choice
            label="From edge"
            value={edge}
            onChange={(id) => setFresh({ ...fresh, edge: id })}
            options={edges.map(({ id, letter }) => [id, letter] as const)}
          />
          <LengthField
            label="Cut this far in"
            mm={fresh.inMm ?? null}
            signed
            min={-2000}
            max={10_000}
            empty="measure it"
            onChange={(mm) => setFresh((now) => ({ ...now, inMm: mm ?? undefined }))}
          />
          <Button
            variant="outlined"
            color="inherit"
            disabled={draft.layerCuts.length >= 40}
            onClick={() => {
              // A figure that is still being typed is taken as the field is left, before this.
              setMissing(fresh.inMm === undefined);
              if (fresh.inMm === undefined) return;
              set({
                layerCuts: [
                  ...draft.layerCuts,
                  { layer: fresh.layer ?? next, edge, inMm: fresh.inMm },
                ],
              });
              setFresh({ edge });
            }}
            sx={{ alignSelf: 'end' }}
          >
            Add this cut
          </Button>
          {missing && <Box role="alert">Say how far in from the edge it is cut.</Box>}
        </Box>
      )}
    </Box>
  );
}

/** That it is cut out: when, with a picture; and when it is back in. */
function CutOutRecord() {
  const { points } = useSurvey();
  const { draft, set, verdict } = usePieceSurvey();
  const { cutOut } = draft;
  const [sure, setSure] = useState(false);
  // Only of what has been reckoned as it stands here may it be said that it can be put back.
  const reckoned = points
    .filter(({ id }) => draft.takes.includes(id))
    .every(({ id }) => verdict?.points.some(({ point }) => point.id === id));
  const bad = (verdict?.warnings ?? []).some(
    ({ code }) => code === 'put-back-poor' || code === 'not-a-plane' || code === 'both-sides-out',
  );
  const poor = verdict === null || !reckoned || bad;
  const record = () => set({ cutOut: { at: new Date().toISOString(), note: '', backAt: null } });
  return (
    <Box
      component="section"
      aria-label="Cut out"
      sx={{
        p: 2,
        bgcolor: 'var(--panel)',
        border: '1.5px solid var(--rule)',
        display: 'grid',
        gap: 1.5,
      }}
    >
      <Typography variant="h2">
        {cutOut ? (cutOut.backAt ? 'Back in its place' : 'Cut out') : 'Cut it out'}
      </Typography>
      {!cutOut ? (
        poor ? (
          <>
            <Typography>
              {bad
                ? 'What it takes away could not be put back yet. First do what “References it takes away” asks for.'
                : 'Whether what it takes away can be put back is not reckoned yet.'}
            </Typography>
            <FormControlLabel
              control={<Checkbox checked={sure} onChange={(_, on) => setSure(on)} />}
              label="It is cut out already"
            />
            <Button variant="outlined" color="inherit" disabled={!sure} onClick={record}>
              Write down that it is cut out
            </Button>
          </>
        ) : (
          <>
            <Typography>
              {draft.takes.length > 0
                ? 'All that it takes away can be put back.'
                : 'No reference is said to go with it.'}{' '}
              Write it down once it is out: what is read after that no longer counts for putting
              back.
            </Typography>
            <Button variant="contained" size="large" onClick={record}>
              It is cut out
            </Button>
          </>
        )
      ) : (
        <>
          <LaterMomentField
            label="Cut out"
            at={cutOut.at}
            onChange={(at) => set({ cutOut: { ...cutOut, at } })}
          />
          <TextField
            label="How, and what was seen"
            value={cutOut.note}
            multiline
            minRows={2}
            onChange={(event) => set({ cutOut: { ...cutOut, note: cut(event.target.value, 400) } })}
          />
          {cutOut.backAt === null ? (
            <Button
              variant="outlined"
              color="inherit"
              onClick={() => set({ cutOut: { ...cutOut, backAt: new Date().toISOString() } })}
            >
              The new piece is in, its references marked again
            </Button>
          ) : (
            <>
              <LaterMomentField
                label="Back in"
                at={cutOut.backAt}
                onChange={(backAt) => set({ cutOut: { ...cutOut, backAt } })}
              />
              <Button
                size="small"
                color="inherit"
                onClick={() => set({ cutOut: { ...cutOut, backAt: null } })}
              >
                It is not back in
              </Button>
            </>
          )}
          <Button size="small" color="inherit" onClick={() => set({ cutOut: null })}>
            It is not cut out after all
          </Button>
        </>
      )}
      <PiecePictures owner="piece" title="Pictures of the cut" small />
    </Box>
  );
}
