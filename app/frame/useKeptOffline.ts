import { useEffect } from 'react';
import { useLocation } from 'react-router';
import { useWho } from './recordedBy';
import { STOPS } from './stops';

/** The stops that are used at the vehicle, and what whoever only looks has instead. */
const AT_VEHICLE = STOPS.filter(({ atVehicle }) => atVehicle).map(({ id }) => id);
const LOOKED_AT = ['record'];

type Manifest = {
  routes: Record<string, { module: string; imports?: string[]; css?: string[] } | undefined>;
};

/**
 * The files that pages of these stops are made of, by the router’s own list, and those this page
 * has already.
 */
function files(stops: readonly string[]): string[] {
  const { routes } = (window as unknown as { __reactRouterManifest?: Manifest })
    .__reactRouterManifest ?? {
    routes: {},
  };
  const ofStops = stops.flatMap((stop) => {
    const route = routes[`${stop}/${stop}`];
    return route ? [route.module, ...(route.imports ?? []), ...(route.css ?? [])] : [];
  });
  const here = performance
    .getEntriesByType('resource')
    .map(({ name }) => new URL(name))
    .filter(({ origin }) => origin === location.origin)
    .map(({ pathname }) => pathname);
  return [...new Set([...ofStops, ...here])].filter((path) => path.startsWith('/assets/'));
}

const tell = async (what: object): Promise<void> => {
  const { active } = await navigator.serviceWorker.ready;
  active?.postMessage(what);
};

/**
 * On a phone that was let in keeps what is used at the vehicle, so that it opens without the
 * server, and of the piece that is open all those stops. Where the certificate is not trusted the
 * browser keeps nothing: what is written then waits as long as the page is open.
 */
export function useKeptOffline(): void {
  const who = useWho();
  const isDevice = (who?.device ?? null) !== null;
  const stops = who?.role === 'looks' ? LOOKED_AT : AT_VEHICLE;
  const { pathname } = useLocation();
  const piece = /^\/pieces\/[0-9a-f-]{36}/.exec(pathname)?.[0] ?? null;
  const can = isDevice && import.meta.env.PROD;
  useEffect(() => {
    if (can && 'serviceWorker' in navigator)
      navigator.serviceWorker.register('/sw.js').catch(() => undefined);
  }, [can]);
  useEffect(() => {
    if (!can || !piece || !('serviceWorker' in navigator)) return;
    // When the page has come to rest: what it needs is there by then.
    const keeping = setTimeout(
      () =>
        void tell({
          what: 'keep',
          files: files(stops),
          pages: stops.map((stop) => `${piece}/${stop}`),
        }),
      1500,
    );
    return () => clearTimeout(keeping);
  }, [can, piece, stops]);
  useEffect(() => {
    if (can && piece && 'serviceWorker' in navigator) void tell({ what: 'last', path: pathname });
  }, [can, piece, pathname]);
}

/** Whoever signs out, or is signed out, leaves nothing to be looked at. */
export const forgetOffline = (): void => {
  if ('serviceWorker' in navigator && navigator.serviceWorker.controller)
    void tell({ what: 'forget' });
};
