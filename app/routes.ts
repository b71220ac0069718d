import { index, layout, route } from '@react-router/dev/routes';
import type { RouteConfig } from '@react-router/dev/routes';
import type { Address } from './access/addresses';
import { FRAMED, OF_PIECE, OTHERS, PIECE_PAGES } from './access/addresses';

const entry = ({ path, file }: Address) => (path === '' ? index(file) : route(path, file));

/** Routes as the addresses are declared, with who may ask for them: app/access/addresses.ts. */
export default [
  layout('frame/Frame.tsx', FRAMED.map(entry)),
  route(OF_PIECE, 'piece/piece.tsx', [layout('piece/stop.tsx', PIECE_PAGES.map(entry))]),
  ...OTHERS.map(entry),
] satisfies RouteConfig;
