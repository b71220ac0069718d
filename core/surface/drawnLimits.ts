/** Lines, places along one, marks and tracks kept of a map; a panel at the bench has a tenth of them. */
export const MOST_LINES = 400;
export const MOST_PLACES = 600;
export const MOST_MARKS = 3000;
export const MOST_TRACKS = 2000;
