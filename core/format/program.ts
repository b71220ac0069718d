/** The version of this program, as job files name it: that of package.json. */
export const PROGRAM = '0.2.0';
