import { useRouteLoaderData } from 'react-router';

/** Who is at this page, as far as pages need to know. */
export type Who = {
  role: 'runs' | 'works' | 'looks';
  /** By name; null where nobody has said who they are. */
  name: string | null;
  /** The phone or tablet this is, where it was let in as one. */
  device: string | null;
  /** Signed in, and not only at an open machine. */
  signedIn: boolean;
  /** On the shop’s own device: who it may be, and who of them is asked for a PIN. */
  names: { id: string; name: string; hasPin: boolean }[] | null;
};

export const useWho = (): Who | null =>
  useRouteLoaderData<{ who: Who | null }>('root')?.who ?? null;

/**
 * Who a record is by, before anybody says: whoever is signed in; at an open machine whoever wrote
 * the last one.
 */
export const whoAtFirst = (who: Who | null, last: string | undefined): string => {
  if (who?.names) return who.name ?? '';
  return who?.signedIn && who.name !== null ? who.name : (last ?? who?.name ?? '');
};
