/** What of a drawing is picked. */
export type Pick = { kind: 'edge' | 'fold' | 'hole' | 'corner' | 'bead'; id: string } | null;
