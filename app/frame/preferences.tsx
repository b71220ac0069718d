import { createContext, useContext, useEffect, useMemo, useState } from 'react';
import type { ReactNode } from 'react';
import type { Unit } from '#core/measure/length';
import {
  formatArea,
  formatBrief,
  formatLength,
  formatThin,
  formatWeight,
} from '#core/measure/length';
import type { DateStyle, Dates } from './dates';
import { isZone, zoneHere } from './dates';

export type Bench = 'light' | 'dark';
export type Preferences = {
  unit: Unit;
  /** How this shop writes inches. */
  inches: Exclude<Unit, 'mm'>;
  bench: Bench;
  dates: Dates;
};

const UNIT_COOKIE = 'patrone-unit';
const BENCH_COOKIE = 'patrone-bench';
const ZONE_COOKIE = 'patrone-zone';

/** What this browser was set to, from its cookies; anything else is the shop's. */
export function preferencesFrom(
  cookies: string,
  shop: { units: Unit; dates: DateStyle },
): Preferences {
  const value = (name: string) => new RegExp(`(?:^|; )${name}=([^;]*)`).exec(cookies)?.[1];
  const unit = value(UNIT_COOKIE);
  const inches = shop.units === 'mm' ? 'in' : shop.units;
  const zone = value(ZONE_COOKIE) ?? '';
  return {
    unit: unit === 'mm' ? 'mm' : unit ? inches : shop.units,
    inches,
    bench: value(BENCH_COOKIE) === 'dark' ? 'dark' : 'light',
    // Until the browser has told its own, the server's.
    dates: { style: shop.dates, zone: isZone(zone) ? zone : zoneHere() },
  };
}

/** How lengths are written to whoever sent a request: in the unit of their browser, else the shop's. */
export function lengthsFor(
  request: Request,
  shop: { units: Unit; dates: DateStyle } = { units: 'mm', dates: 'day' },
): (mm: number) => string {
  const { unit } = preferencesFrom(request.headers.get('cookie') ?? '', shop);
  return (mm) => formatLength(mm, unit);
}

const keep = (name: string, value: string) => {
  document.cookie = `${name}=${value}; path=/; max-age=31536000; samesite=lax`;
};

type Context = Preferences & {
  toggleUnit: () => void;
  toggleBench: () => void;
  /** A length as it is shown: the unit in use, `digits` decimals of a millimetre. */
  show: (mm: number, digits?: number) => string;
  /** The same without the unit, where the unit stands elsewhere or is plain. */
  bare: (mm: number, digits?: number) => string;
  /** The same where there is room for few signs: on a tag or a tile. */
  brief: (mm: number, digits?: number) => string;
  /**
   * A thin thing (sheet, gap, step, wire): hundredths of a millimetre or thousandths of an inch.
   */
  showThin: (mm: number) => string;
  thin: (mm: number) => string;
  showWeight: (kg: number) => string;
  /** An area: cm² or in². */
  showArea: (mm2: number, digits?: number) => string;
};
const PreferencesContext = createContext<Context | null>(null);

export function PreferencesProvider({
  initial,
  children,
}: {
  initial: Preferences;
  children: ReactNode;
}) {
  const [unit, setUnit] = useState(initial.unit);
  const [bench, setBench] = useState(initial.bench);
  const { inches } = initial;
  const [zone, setZone] = useState(initial.dates.zone);
  useEffect(() => {
    // Both sides write the same until the page stands; then in the reader's own zone, from now on.
    const own = zoneHere();
    if (own === initial.dates.zone || !isZone(own)) return;
    keep(ZONE_COOKIE, own);
    const telling = setTimeout(() => setZone(own), 0);
    return () => clearTimeout(telling);
  }, [initial.dates.zone]);
  const { style } = initial.dates;
  const dates = useMemo((): Dates => ({ style, zone }), [style, zone]);
  const value = useMemo((): Context => {
    return {
      unit,
      inches,
      bench,
      dates,
      toggleUnit: () => {
        const next = unit === 'mm' ? inches : 'mm';
        keep(UNIT_COOKIE, next);
        setUnit(next);
      },
      toggleBench: () => {
        const next = bench === 'light' ? 'dark' : 'light';
        keep(BENCH_COOKIE, next);
        document.documentElement.dataset.bench = next;
        setBench(next);
      },
      show: (mm, digits = 1) => formatLength(mm, unit, digits),
      bare: (mm, digits = 1) => formatLength(mm, unit, digits, false),
      brief: (mm, digits = 1) => formatBrief(mm, unit, digits),
      showThin: (mm) => formatThin(mm, unit),
      thin: (mm) => formatThin(mm, unit, false),
      showWeight: (kg) => formatWeight(kg, unit),
      showArea: (mm2, digits = 0) => formatArea(mm2, unit, digits),
    };
  }, [unit, inches, bench, dates]);
  return <PreferencesContext.Provider value={value}>{children}</PreferencesContext.Provider>;
}

export function usePreferences(): Context {
  const context = useContext(PreferencesContext);
  if (!context) throw new Error('usePreferences outside its provider');
  return context;
}
