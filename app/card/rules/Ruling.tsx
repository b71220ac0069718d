import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import { patternFigure, withPatternFigure } from '#core/card/holePattern';
import { countingIds } from '#core/card/kinds';
import type { CardRule, PatternDoc } from '#core/card/pattern';
import { isMet, offNow, ruledCard } from '#core/card/rule/cardRules';
import { suggestedRules } from '#core/card/rule/suggestedRules';
import type { AsMeasured } from '#core/card/rule/asMeasured';
import { LengthField } from '../../forms/LengthField';
import { usePreferences } from '../../frame/preferences';
import { usePiece } from '../../piece/pieceContext';
import { newId } from '../../frame/newId';
import { offSaid, ruleSaid } from './ruleWords';

/**
 * What of the card is ruled, what tapers and was left so, and what looks meant: the measured truth
 * beside each.
 */
export function Ruling({ pattern, onRule }: { pattern: PatternDoc; onRule: () => void }) {
  // What is shown may lag behind what is dragged; what is changed is the card as it is now.
  const { patternEditor, pattern: now } = usePiece();
  const { show } = usePreferences();
  const offers = useMemo(() => suggestedRules(pattern, countingIds('offered-')), [pattern]);
  const off = useMemo(() => offNow(pattern), [pattern]);
  const edit = (next: Partial<PatternDoc>) => patternEditor.edit({ ...now, ...next });
  return (
    <Box>
      <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between' }}>
        <Typography variant="h3">Ruled straight</Typography>
        <Button variant="outlined" onClick={onRule}>
          Rule parts…
        </Button>
      </Stack>
      <Stack
        component="ul"
        aria-label="Rules"
        spacing={1.25}
        sx={{ listStyle: 'none', p: 0, m: 0, mt: 1 }}
      >
        {pattern.rules.map((rule, i) => (
          <Line key={rule.id} said={ruleSaid(pattern, rule, show)} mark={i}>
            {isMet(off[i]!) ? (
              <Note>Kept so, whatever is moved.</Note>
            ) : (
              <Note alarm>
                Not met: {off[i] ? offSaid(rule, off[i], show) : 'a part of it is gone'}.
              </Note>
            )}
            <Figure pattern={pattern} rule={rule} />
            <Small onClick={() => edit({ rules: now.rules.filter(({ id }) => id !== rule.id) })}>
              Take the rule off
            </Small>
          </Line>
        ))}
        {pattern.dismissedRules.map((left) => {
          const rule: CardRule = { id: 'left', kind: left.kind, sides: left.sides };
          const [measured] = offNow(pattern, [rule]);
          return (
            <Line key={`${left.kind} ${left.sides.join(' ')}`} said={leftSaid(pattern, rule, show)}>
              <Note>Left: {measured ? offSaid(rule, measured, show) : ''}.</Note>
              <Small
                onClick={() =>
                  edit({
                    dismissedRules: now.dismissedRules.filter(
                      (one) => one.kind !== left.kind || one.sides.join() !== left.sides.join(),
                    ),
                  })
                }
              >
                Ask again
              </Small>
            </Line>
          );
        })}
      </Stack>
      {offers.length > 0 && (
        <>
          <Typography variant="h3" sx={{ mt: 2 }}>
            Probably meant
          </Typography>
          <Stack
            component="ul"
            aria-label="Probably meant"
            spacing={1.25}
            sx={{ listStyle: 'none', p: 0, m: 0, mt: 1 }}
          >
            {offers.map(({ rule, off }) => (
              <Offer key={rule.id} pattern={pattern} rule={rule} off={off} />
            ))}
          </Stack>
        </>
      )}
    </Box>
  );
}

const FIGURE_WORDS = { pitch: 'Pitch', circle: 'Circle, across', size: 'Each, across' } as const;

/** The one figure of holes that are ruled together, to be changed for all of them. */
function Figure({ pattern, rule }: { pattern: PatternDoc; rule: CardRule }) {
  const { patternEditor, pattern: now } = usePiece();
  const figure = patternFigure(pattern, rule);
  if (!figure) return null;
  return (
    <Box sx={{ maxWidth: 200, my: 0.5 }}>
      <LengthField
        label={FIGURE_WORDS[figure.what]}
        mm={figure.mm}
        min={0.5}
        max={20_000}
        digits={2}
        onChange={(mm) => mm && patternEditor.edit(withPatternFigure(now, rule, mm), rule.id)}
      />
    </Box>
  );
}

const leftSaid = (pattern: PatternDoc, rule: CardRule, show: (mm: number) => string) =>
  ruleSaid(pattern, rule, show)
    .replace(/ parallel$/, ' taper')
    .replace(/ square to /, ' leans to ');

function Offer({ pattern, rule, off }: { pattern: PatternDoc; rule: CardRule; off: AsMeasured }) {
  const { patternEditor, pattern: now } = usePiece();
  const { show } = usePreferences();
  const found = useMemo(
    () => ruledCard({ ...pattern, rules: [...pattern.rules, rule] }),
    [pattern, rule],
  );
  const leave =
    rule.kind === 'parallel' || rule.kind === 'square'
      ? { kind: rule.kind, sides: rule.sides }
      : null;
  return (
    <Line said={`${ruleSaid(pattern, rule, show)}?`}>
      <Note>
        {offSaid(rule, off, show)}.{' '}
        {found.ok
          ? `Ruled, nothing moves by more than ${show(found.movedMm)}.`
          : 'It goes against a rule that is on.'}
      </Note>
      <Stack direction="row" spacing={1} useFlexGap sx={{ flexWrap: 'wrap' }}>
        {found.ok && (
          <Small
            onClick={() =>
              patternEditor.edit({ ...now, rules: [...now.rules, { ...rule, id: newId() }] })
            }
          >
            Rule it
          </Small>
        )}
        {leave && (
          <Small
            onClick={() =>
              patternEditor.edit({
                ...now,
                dismissedRules: [
                  ...now.dismissedRules,
                  { kind: leave.kind, sides: [leave.sides[0]!, leave.sides[1]!] },
                ],
              })
            }
          >
            {rule.kind === 'parallel' ? 'Leave it: it tapers' : 'Leave it: it leans'}
          </Small>
        )}
      </Stack>
    </Line>
  );
}

function Line({
  said,
  mark,
  children,
}: {
  said: string;
  mark?: number;
  children: React.ReactNode;
}) {
  return (
    <Box component="li" aria-label={said} sx={{ borderLeft: '3px solid var(--layout)', pl: 1.5 }}>
      <Typography sx={{ fontWeight: 600 }}>
        {said}
        {mark !== undefined && (
          <Box component="span" aria-hidden className="figure" sx={{ color: 'var(--link)', ml: 1 }}>
            {'|'.repeat((mark % 5) + 1)}
          </Box>
        )}
      </Typography>
      {children}
    </Box>
  );
}

const Note = ({ alarm, children }: { alarm?: boolean; children: React.ReactNode }) => (
  <Typography variant="body2" sx={{ color: alarm ? 'var(--torch)' : 'var(--pencil)' }}>
    {children}
  </Typography>
);

const Small = ({ onClick, children }: { onClick: () => void; children: React.ReactNode }) => (
  <Button variant="outlined" size="small" sx={{ mt: 0.5 }} onClick={onClick}>
    {children}
  </Button>
);
