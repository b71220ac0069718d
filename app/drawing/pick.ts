/** What of a drawing is picked. */
export type Pick = { kind: 'edge' | 'fold' | 'hole' | 'corner'; id: string } | null;
