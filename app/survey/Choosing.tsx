import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { Suspense, lazy, useState } from 'react';
import { cut } from '#core/card/cut';
import { growthToCutOpen } from '#core/survey/growth';
import type { OptionKind } from '#core/survey/kinds';
import { OPTION_KINDS } from '#core/survey/kinds';
import type { Weighed } from '#core/survey/options';
import { weighOptions } from '#core/survey/options';
import type { PieceOption } from '#core/survey/pieceSurvey';
import { inHand } from '#core/survey/inHand';
import { Choice } from '../forms/Choice';
import { FigureField } from '../forms/FigureField';
import { Moment } from '../frame/Moment';
import { Told } from '../frame/Told';
import { usePiece } from '../piece/pieceContext';
import { OPTION_WORDS } from '../piece/road/surveyWords';
import { hoursSaid, moneySaid, optionsToWeigh } from './money';
import { outlinesOn } from './outlines';
import { usePieceSurvey } from './usePieceSurvey';
import { useSurvey } from './useSurvey';

// The chart's library is large.
const OptionChart = lazy(() => import('./OptionChart'));

const MAX_OPTIONS = 12;
const calledOf = ({ name, of }: Pick<PieceOption, 'name' | 'of'>) => name || OPTION_WORDS[of];

/** What is not made here: its hours are those of bringing it to size. */
const BROUGHT: ReadonlySet<OptionKind> = new Set<OptionKind>(['buy', 'donor']);

/**
 * Make a patch, make the panel, mend the old or buy: what each costs, how sure, and which was
 * taken.
 */
export default function Choosing() {
  const { shop } = usePiece();
  const { all } = useSurvey();
  const { draft, set, pictures } = usePieceSurvey();
  const [adding, setAdding] = useState(false);
  const { options, choice } = draft;
  const weighed = weighOptions(shop.hourRate, optionsToWeigh(options));
  const means = weighed.ok ? weighed.options.map(({ mean }) => mean) : [];
  const cheapest = means.indexOf(Math.min(...means));
  const taken = options.find(({ id }) => id === choice?.option);
  const growth = growthToCutOpen(inHand(all, 'finding'), outlinesOn(pictures));
  const replace = (id: string, next: PieceOption | null) =>
    set({
      options: options.flatMap((one) => (one.id === id ? (next ?? []) : one)),
      // What is taken off cannot be what was chosen.
      ...(next === null && choice?.option === id ? { choice: null } : {}),
    });
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 2.5 }}>
      {weighed.ok && options.length > 1 && (
        <Box component="section" aria-label="What it costs">
          <Typography variant="h2">What each way costs</Typography>
          <Suspense fallback={<Box sx={{ height: 70 + 62 * options.length }} />}>
            <OptionChart
              weighed={weighed.options}
              names={options.map(calledOf)}
              cheapest={cheapest}
              currency={shop.currency}
            />
          </Suspense>
          <Typography sx={{ color: 'var(--pencil)', fontSize: '0.92rem' }}>
            From one in ten under to one in ten over, the ring in the middle; at{' '}
            {moneySaid(shop.hourRate, shop.currency)} an hour (set on the shop’s page).
          </Typography>
          <Box role="status" aria-label="What would tip it" sx={{ mt: 1 }}>
            <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
              {options.map((one, i) => (
                <li key={one.id}>{tipSaid(one, weighed.options, i, cheapest, shop.currency)}</li>
              ))}
            </Box>
          </Box>
        </Box>
      )}
      <Box component="section" aria-label="The ways" sx={{ display: 'grid', gap: 1.5 }}>
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
          <Typography variant="h2" sx={{ flex: 1 }}>
            The ways
          </Typography>
          <Button
            variant={options.length < 2 && !adding ? 'contained' : 'outlined'}
            color={options.length < 2 && !adding ? 'primary' : 'inherit'}
            disabled={adding || options.length >= MAX_OPTIONS}
            onClick={() => setAdding(true)}
          >
            Another way
          </Button>
        </Box>
        {options.length === 0 && !adding && (
          <Typography>
            Put at least two side by side: a patch, the whole panel, mending the old, a bought
            pressing. Guess the hours three times: at best, likely, at worst.
          </Typography>
        )}
        {growth && options.length + Number(adding) > 0 && (
          <Typography>
            So far here what was found was <b className="figure">{growth.times.toFixed(1)}</b> times
            as large when cut open as at first sight: guess the hours at worst with that.
          </Typography>
        )}
        {options.map((one, i) => (
          <OptionRow
            key={one.id}
            option={one}
            weighed={weighed.ok ? weighed.options[i]! : null}
            chosen={choice?.option === one.id}
            onChange={(next) => replace(one.id, next)}
            onChoose={() =>
              set({
                choice: {
                  option: one.id,
                  why: choice?.why ?? '',
                  at: new Date().toISOString(),
                  hoursTaken: null,
                },
              })
            }
          />
        ))}
        {adding && (
          <OptionRow
            option={null}
            weighed={null}
            chosen={false}
            onChange={(next) => {
              if (next) set({ options: [...options, next] });
              setAdding(false);
            }}
          />
        )}
      </Box>
      {choice && taken && (
        <Box
          component="section"
          aria-label="The choice"
          sx={{
            p: 2,
            bgcolor: 'var(--panel)',
            border: '1.5px solid var(--rule)',
            display: 'grid',
            gap: 1.5,
            maxWidth: 720,
          }}
        >
          <Typography variant="h2">Taken: {calledOf(taken)}</Typography>
          <Box sx={{ color: 'var(--pencil)' }}>
            since <Moment at={choice.at} />
          </Box>
          <TextField
            label="Why"
            value={choice.why}
            multiline
            onChange={(event) => set({ choice: { ...choice, why: cut(event.target.value, 400) } })}
          />
          <Box sx={{ maxWidth: 240 }}>
            <FigureField
              label="Hours it took in the end"
              value={choice.hoursTaken}
              min={0}
              max={10_000}
              unit="h"
              wrong="Hours, from 0 up."
              onChange={(hoursTaken) => set({ choice: { ...choice, hoursTaken } })}
            />
          </Box>
        </Box>
      )}
    </Box>
  );
}

/** What would tip it for or against one of the ways, the others as they are guessed on average. */
function tipSaid(
  option: PieceOption,
  weighed: readonly Weighed[],
  i: number,
  cheapest: number,
  currency: string,
): string {
  const { chanceCheapest, evenAtHours, mean } = weighed[i]!;
  const name = `“${calledOf(option)}”`;
  const chance = `the cheapest in ${Math.round(chanceCheapest * 100)} of 100`;
  const takes = BROUGHT.has(option.of) ? 'putting it right takes' : 'it takes';
  if (i === cheapest) {
    const next = Math.min(...weighed.filter((_, k) => k !== i).map((other) => other.mean));
    const stays =
      evenAtHours === null ? '' : `, and stays so while ${takes} under ${hoursSaid(evenAtHours)}`;
    return next - mean < 0.5
      ? `${name}: ${chance}. On average another costs the same.`
      : `${name}: ${chance}. On average it saves ${moneySaid(next - mean, currency)}${stays}.`;
  }
  if (evenAtHours === null) return `${name}: ${chance}.`;
  return evenAtHours > 0
    ? `${name}: ${chance}. It wins if ${takes} under ${hoursSaid(evenAtHours)}.`
    : `${name}: ${chance}. It costs more even if it took no hours at all.`;
}

type Typed = [number | null, number | null, number | null];
const LABELS = ['at best', 'likely', 'at worst'] as const;

/**
 * One way: what it is called, its hours three times, its money; as a new one it is taken up once it
 * is whole.
 */
function OptionRow(given: {
  option: PieceOption | null;
  weighed: Weighed | null;
  chosen: boolean;
  onChange: (option: PieceOption | null) => void;
  onChoose?: () => void;
}) {
  const { option, weighed, chosen, onChange, onChoose } = given;
  const { shop } = usePiece();
  const { hours: recorded } = usePieceSurvey();
  const [of, setOf] = useState<OptionKind>(option?.of ?? 'patch');
  const [name, setName] = useState(option?.name ?? '');
  const [hours, setHours] = useState<Typed>(option ? [...option.hours] : [null, null, null]);
  const [money, setMoney] = useState({
    material: option?.material ?? 0,
    price: option?.price ?? 0,
  });
  const [id] = useState(() => option?.id ?? '');
  const whole = (given: {
    of?: OptionKind;
    name?: string;
    hours?: Typed;
    money?: typeof money;
  }): PieceOption | null => {
    const [a, m, b] = given.hours ?? hours;
    if (a === null || m === null || b === null || a > m || m > b) return null;
    return {
      id: id || crypto.randomUUID().slice(0, 8),
      of: given.of ?? of,
      name: given.name ?? name,
      hours: [a, m, b],
      ...(given.money ?? money),
    };
  };
  // One that is there follows what is typed as soon as that is whole; until then it stays as it
  // was.
  const follow = (change: Parameters<typeof whole>[0]) => {
    const next = option && whole(change);
    if (next) onChange(next);
  };
  const put = (i: number, value: number) => {
    const next = hours.map((was, k) => (k === i ? value : was)) as Typed;
    setHours(next);
    follow({ hours: next });
  };
  const [asked, setAsked] = useState(false);
  // What is reckoned stands beside the figures it was reckoned from, or not at all.
  const typed = whole({});
  const same =
    option &&
    typed &&
    typed.hours.every((h, i) => h === option.hours[i]) &&
    typed.material === option.material &&
    typed.price === option.price;
  const falls = hours.every((h) => h !== null) && whole({}) === null;
  const took = [...(recorded[of] ?? [])].sort((a, b) => a - b);
  const usual = took.length > 0 ? took[Math.floor((took.length - 1) / 2)]! : null;
  const what = BROUGHT.has(of) ? 'Hours to put it right' : 'Hours';
  return (
    <Box
      sx={{
        p: 1.5,
        bgcolor: 'var(--panel)',
        border: '1.5px solid var(--rule)',
        borderLeft: chosen ? '6px solid var(--torch)' : '1.5px solid var(--rule)',
        display: 'grid',
        gap: 1.2,
      }}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1.4fr' }, gap: 1 }}>
        <Choice
          label="What is done"
          value={of}
          onChange={(next) => {
            setOf(next);
            follow({ of: next });
          }}
          options={OPTION_KINDS.map((kind) => [kind, OPTION_WORDS[kind]] as const)}
        />
        <TextField
          label="Called"
          value={name}
          placeholder={OPTION_WORDS[of]}
          onChange={(event) => {
            const next = cut(event.target.value, 60);
            setName(next);
            follow({ name: next });
          }}
        />
      </Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr 1fr 1fr', sm: 'repeat(5, 1fr)' },
          gap: 1,
          alignItems: 'end',
        }}
      >
        {LABELS.map((label, i) => (
          <FigureField
            key={label}
            label={i === 0 ? `${what}, ${label}` : label[0]!.toUpperCase() + label.slice(1)}
            value={hours[i]!}
            min={0}
            max={10_000}
            unit="h"
            wrong="Hours, from 0 up."
            onChange={(value) => put(i, value)}
          />
        ))}
        <FigureField
          label="Material"
          value={money.material}
          min={0}
          max={10_000_000}
          unit={shop.currency}
          wrong="Money, from 0 up."
          onChange={(material) => {
            const next = { ...money, material };
            setMoney(next);
            follow({ money: next });
          }}
        />
        <FigureField
          label="Bought for"
          value={money.price}
          min={0}
          max={10_000_000}
          unit={shop.currency}
          wrong="Money, from 0 up."
          onChange={(price) => {
            const next = { ...money, price };
            setMoney(next);
            follow({ money: next });
          }}
        />
      </Box>
      {asked && option === null && hours.includes(null) && (
        <Told>Guess the hours at best, likely and at worst.</Told>
      )}
      {falls && (
        <Told>
          At best, likely and at worst have to rise: {hours.map((h) => hoursSaid(h!)).join(', ')}.
        </Told>
      )}
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        {weighed && same && (
          <Box sx={{ flex: 1, minWidth: 220 }} className="figure">
            {moneySaid(weighed.p10, shop.currency)} – {moneySaid(weighed.p90, shop.currency)}{' '}
            <span style={{ fontFamily: 'Barlow, sans-serif' }}>
              · cheapest in {Math.round(weighed.chanceCheapest * 100)} of 100
            </span>
          </Box>
        )}
        {usual !== null && usual !== hours[1] && (
          <Button size="small" variant="outlined" color="inherit" onClick={() => put(1, usual)}>
            Likely {hoursSaid(usual)}:{' '}
            {took.length === 1
              ? 'one such piece took that here'
              : `the middle of ${took.length} such pieces here`}
          </Button>
        )}
        {option === null ? (
          <>
            <Button
              variant="contained"
              onClick={() => {
                const next = whole({});
                setAsked(true);
                if (next) onChange(next);
              }}
            >
              Put it beside the others
            </Button>
            <Button color="inherit" onClick={() => onChange(null)}>
              Not now
            </Button>
          </>
        ) : (
          <>
            {chosen ? (
              <b>Taken</b>
            ) : (
              onChoose && (
                <Button variant="outlined" color="inherit" onClick={onChoose}>
                  Take this way
                </Button>
              )
            )}
            <Button size="small" color="inherit" onClick={() => onChange(null)}>
              Take off
            </Button>
          </>
        )}
      </Box>
    </Box>
  );
}
