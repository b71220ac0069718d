/** Degrees at the surface, radians inside functions. */
export const radians = (degrees: number): number => (degrees * Math.PI) / 180;
export const degrees = (rad: number): number => (rad * 180) / Math.PI;
