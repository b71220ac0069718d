import { useCallback, useState } from 'react';
import { outlineOf } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { box } from '#core/measure/path';
import type { Vec } from '#core/measure/vector';
import { CardPicture } from '../drawing/CardPicture';
import { Drawing } from '../drawing/Drawing';
import type { Pick } from '../drawing/pick';
import { StopLayout } from '../frame/StopLayout';
import { usePreferences } from '../frame/preferences';
import { useInHand, usePick, usePiece } from '../piece/pieceContext';
import { CardDrawer } from './CardDrawer';
import { Bows, Handles } from './hand/Handles';
import { Guides, Moved, PlaceInHand, placeMeant } from './hand/InHand';
import { Offers } from './hand/Offers';
import type { Offer } from './hand/Offers';
import { RuleMarks } from './rules/RuleMarks';
import { FadeUnderlay } from './photograph/FadeUnderlay';
import { Tucks } from './panels/Tucks';
import { UnderlayPicture } from './photograph/UnderlayPicture';
import { cardTally } from './cardTally';
import type { Shown } from './photograph/underlay';
import { useUnderlay } from './photograph/underlay';
import type { Hand } from './hand/hand';
import { bowsOf, useDrag } from './hand/useDrag';
import type { Doing } from './hand/useHand';
import { placeOfCorner, useHand } from './hand/useHand';

/**
 * The card stage proper: drawing to touch and drag on, drawer for what is picked or in hand, tally
 * of the card.
 */
export function Editor() {
  const { id, pattern, patternEditor, pictures, development } = usePiece();
  const { show, showArea } = usePreferences();
  const { hand, doing } = useHand();
  const [underlay, letGo] = useUnderlay(id, pattern.underlay, pictures);
  const takeAway = () => {
    letGo();
    patternEditor.edit({ ...pattern, underlay: null });
  };
  const [opacity, setOpacity] = useState(0.5);
  return (
    <StopLayout
      tally={cardTally(pattern, development, show, showArea)}
      drawer={
        <>
          <CardDrawer hand={hand} doing={doing} />
          {underlay && (
            <FadeUnderlay opacity={opacity} setOpacity={setOpacity} takeAway={takeAway} />
          )}
        </>
      }
      drawing={
        <CardDrawing
          hand={hand}
          doing={doing}
          underlay={pattern.turned ? null : underlay}
          opacity={opacity}
        />
      }
    />
  );
}

/**
 * The drawing follows the hand: of all the page only this is drawn anew while something is dragged.
 */
type CardDrawingProps = {
  hand: Hand | null;
  doing: Doing;
  underlay: Shown | null;
  opacity: number;
};

function CardDrawing({ hand, doing, underlay, opacity }: CardDrawingProps) {
  const { pattern } = useInHand();
  const { pick, setPick } = usePick();
  const { unit } = usePreferences();
  const { guides, moved, down, drag, up } = useDrag(
    hand?.kind !== 'fold',
    hand?.kind === 'rule' ? doing.gather : undefined,
  );
  const [pointer, setPointer] = useState<Vec | null>(null);
  const laying = hand?.kind === 'fold' ? hand : null;
  const bows = pick?.kind === 'edge' ? bowsOf(pattern, pick.id) : [];

  const touch = (p: Vec, scale: number, what: string | null) => {
    const meant =
      what === 'ground' && !laying
        ? null
        : placeMeant(pattern, p, laying?.from.spot ?? null, scale, unit);
    if (laying) return meant && doing.foldTo(meant.at);
    if (hand?.kind === 'rule')
      return meant && what === 'edge' ? doing.gather(meant.at.spot.side) : undefined;
    if (what === 'edge' && meant) {
      setPick({ kind: 'edge', id: meant.edge });
      doing.take({ kind: 'place', edge: meant.edge, at: meant.at });
    }
    if (what === 'face') {
      setPick(null);
      doing.take({ kind: 'inside', at: roundedTo(p, scale) });
    }
  };
  const putDown = () => {
    setPick(null);
    if (!laying && hand?.kind !== 'rule') doing.take(null);
  };
  const { take } = doing;
  // The same function from frame to frame, so that marks that did not move rest.
  const picked = useCallback(
    (next: Pick) => {
      take(null);
      setPick(next);
    },
    [take, setPick],
  );
  const { gather } = doing;
  const onPick = laying
    ? undefined
    : hand?.kind === 'rule'
      ? (next: Pick) => next && gather(next.kind === 'edge' ? firstSide(pattern, next.id) : next.id)
      : picked;
  const offered = offersOf(hand, pick, doing, placeOfCorner(pattern, pick?.id ?? ''));

  return (
    <Drawing
      bounds={box(outlineOf(pattern).path)}
      ground="card"
      label="The card"
      onDown={down}
      onMove={(p, scale) => {
        if (laying) setPointer(p);
        drag(p, scale);
      }}
      onUp={up}
      onTouch={touch}
      onGround={putDown}
    >
      <CardPicture
        pattern={pattern}
        pick={pick}
        onPick={onPick}
        onFace={underlay && <UnderlayPicture shown={underlay} opacity={opacity} />}
      />
      <Tucks pattern={pattern} />
      <Handles pattern={pattern} pick={pick?.kind === 'corner' ? pick.id : null} onPick={onPick} />
      <RuleMarks pattern={pattern} gathered={hand?.kind === 'rule' ? hand.parts : []} />
      {bows.length > 0 && <Bows bows={bows} />}
      {laying && (
        <PlaceInHand
          pattern={pattern}
          from={laying.from.spot}
          pointer={pointer}
          to={laying.to?.at ?? null}
        />
      )}
      <Guides guides={guides} />
      {moved && <Moved at={moved.at} said={moved.said} />}
      {offered && !moved?.now && <Offers {...offered} out={outOf(pattern, offered.at)} />}
    </Drawing>
  );
}

const firstSide = (pattern: PatternDoc, edge: string) =>
  pattern.edges.find(({ id }) => id === edge)?.sides[0] ?? '';

/** What can be done from where the hand is: on an edge, inside, or at a corner that is picked. */
function offersOf(
  hand: Hand | null,
  pick: Pick,
  doing: Doing,
  corner: ReturnType<typeof placeOfCorner>,
): { at: Vec; offers: Offer[] } | null {
  if (hand?.kind === 'place') {
    const { at } = hand;
    const from = { label: 'Fold from here', key: 'L', act: () => doing.foldFrom(at) };
    const split = { label: 'Corner here', key: 'C', act: () => doing.corner(at) };
    const tuck = { label: 'Tuck here', key: 'T', act: () => doing.tuck(at) };
    return { at: at.point, offers: at.reason === 'corner' ? [from, tuck] : [split, from, tuck] };
  }
  if (hand?.kind === 'inside') {
    return {
      at: hand.at,
      offers: [
        { label: 'Hole here', key: 'H', act: doing.hole },
        { label: 'Bead through here', key: 'B', act: doing.bead },
        { label: 'This face stays put', key: 'S', act: doing.staysPut },
      ],
    };
  }
  if (hand === null && pick?.kind === 'corner' && corner) {
    return {
      at: corner.point,
      offers: [{ label: 'Fold from here', key: 'L', act: () => doing.foldFrom(corner) }],
    };
  }
  return null;
}

/** Which way the offers hang from a place: away from the middle of the card, along the drawing. */
function outOf(pattern: Parameters<typeof outlineOf>[0], at: Vec): Vec {
  const { minX, maxX, minY, maxY } = box(outlineOf(pattern).path);
  const [x, y] = [at[0] - (minX + maxX) / 2, at[1] - (minY + maxY) / 2];
  // To the side rather than up or down: slips are wider than they are high.
  return Math.abs(x) * (maxY - minY) >= 0.6 * Math.abs(y) * (maxX - minX)
    ? [Math.sign(x) || 1, 0]
    : [0, Math.sign(y)];
}

/** A touch inside at the roundest figure a finger can mean. */
const roundedTo = ([x, y]: Vec, scale: number): Vec => {
  const step = scale > 1.2 ? 1 : 5;
  return [Math.round(x / step) * step, Math.round(y / step) * step];
};
