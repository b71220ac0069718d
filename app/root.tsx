import { DEFAULT_SHOP } from '#core/blank/fold/practice';
import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import { Suspense, lazy, useCallback, useContext, useState } from 'react';
import type { ReactNode } from 'react';
import type { ShouldRevalidateFunctionArgs } from 'react-router';
import {
  Links,
  Meta,
  Outlet,
  Scripts,
  ScrollRestoration,
  isRouteErrorResponse,
  useRouteLoaderData,
} from 'react-router';
import type { Route } from './+types/root';
import { Failure } from './frame/Failure';
import { Lost } from './frame/Lost';
import './frame/bench.css';
import './frame/fonts';
import type { Who } from './frame/recordedBy';
import { NonceContext } from './frame/nonce';
import { KeyCardContext } from './frame/keyCard';
import { NotKept } from './forms/NotKept';
import { useEscapeLeavesField } from './frame/keys';
import { PreferencesProvider, preferencesFrom } from './frame/preferences';
import { useKeptOffline } from './frame/useKeptOffline';
import { theme } from './frame/theme';
import { summarizeSoon } from './piece/loaded/pieceSummary.server';
import { shopSettings } from './records/shop.server';
import { authorize } from './access/authorize.server';
import { namesAtWork } from './access/people.server';
import { viewerIn } from './records/viewer.server';

export async function loader({ request, context }: Route.LoaderArgs) {
  const viewer = context.get(viewerIn);
  const cookies = request.headers.get('cookie') ?? '';
  // Whoever has not signed in is told nothing of the shop, not its name.
  if (!viewer.known)
    return { preferences: preferencesFrom(cookies, DEFAULT_SHOP), shopName: '', who: null };
  const shop = await shopSettings(viewer);
  const { role, person, device, open } = viewer.known;
  const names = device?.shops ? await namesAtWork(viewer) : null;
  const who: Who = {
    role,
    name: person?.name ?? null,
    device: device?.name ?? null,
    names,
    signedIn: !open,
  };
  return { preferences: preferencesFrom(cookies, shop), shopName: shop.name, who };
}

/** Whatever is asked of whatever route passes here first. */
export const middleware: Route.MiddlewareFunction[] = [authorize, summedUpAfter];

let begun = false;
/**
 * What was written, or changed with the program, is not yet in what lists show: that is brought up
 * to date behind.
 */
async function summedUpAfter({ request }: { request: Request }, next: () => Promise<Response>) {
  const answer = await next();
  if (request.method !== 'GET' || !begun) summarizeSoon();
  begun = true;
  return answer;
}

/** Read once: only the shop's own page, and who is here, change what is read here. */
export const shouldRevalidate = ({ formAction = '' }: ShouldRevalidateFunctionArgs) =>
  /^\/(shop|first|sign-in|sign-out|join\/[^/?]+)(\?|$)/.test(formAction);

export const meta: Route.MetaFunction = () => [{ title: 'Patrone' }];

export function Layout({ children }: { children: ReactNode }) {
  const data = useRouteLoaderData<typeof loader>('root');
  const nonce = useContext(NonceContext);
  const preferences = data?.preferences ?? {
    unit: 'mm' as const,
    bench: 'light' as const,
    dates: { style: 'day' as const, zone: 'UTC' },
    inches: 'in' as const,
  };
  return (
    <html lang="en-GB" data-bench={preferences.bench} suppressHydrationWarning>
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        {/* Before any of the page’s own: the library of schemas would otherwise try whether it may write code, which no page here may. */}
        <script
          nonce={nonce}
          suppressHydrationWarning
          dangerouslySetInnerHTML={{ __html: 'globalThis.__zod_globalConfig={jitless:true}' }}
        />
        <link rel="icon" href="/icon.svg" type="image/svg+xml" />
        <link rel="manifest" href="/manifest.webmanifest" />
        <link rel="apple-touch-icon" href="/apple-touch-icon.png" />
        <meta name="theme-color" content="#faf6ec" />
        <Meta />
        <Links />
      </head>
      <body>
        <PreferencesProvider initial={preferences}>
          <ThemeProvider theme={theme} defaultMode={preferences.bench} storageManager={null}>
            <CssBaseline />
            {children}
          </ThemeProvider>
        </PreferencesProvider>
        <ScrollRestoration nonce={nonce} />
        <Scripts nonce={nonce} />
      </body>
    </html>
  );
}

// Wanted now and then; the marks and the dialog need not be on every page.
const KeyCard = lazy(() => import('./drawing/KeyCard'));

export default function Root() {
  const [keyCard, setKeyCard] = useState(false);
  useEscapeLeavesField();
  useKeptOffline();
  const openKeyCard = useCallback(() => setKeyCard(true), []);
  return (
    <KeyCardContext.Provider value={openKeyCard}>
      <NotKept />
      <Outlet />
      {keyCard && (
        <Suspense>
          <KeyCard open onClose={() => setKeyCard(false)} />
        </Suspense>
      )}
    </KeyCardContext.Provider>
  );
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  if (isRouteErrorResponse(error) && error.status === 404) {
    return <Lost title="Not here" text="There is no such page, or what it showed was moved." />;
  }
  return <Failure error={error} />;
}
