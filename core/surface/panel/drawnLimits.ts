/** Lines, places along one, marks and tracks kept of a map; a panel at the bench has a tenth of them. */
export const MAX_LINES = 400;
export const MAX_PLACES = 600;
export const MAX_MARKS = 3000;
export const MAX_TRACKS = 2000;
