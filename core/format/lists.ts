/** What is chosen from in records, apart from their schema: pages need these and not the validation. */

export const HELD = ['hand', 'magnets', 'clamps', 'clecos', 'screws', 'tacks'] as const;
export const SIDES_OF_VEHICLE = ['left', 'right', 'front', 'rear', 'centre'] as const;
export const WELD_WORK = ['tacks', 'plugs', 'seam', 'stitch'] as const;
export const INSPECTIONS = ['lamp', 'tap', 'penetration', 'flush', 'thickness'] as const;

/** As many stations as an edge is read at. */
export const MOST_STATIONS = 200;
