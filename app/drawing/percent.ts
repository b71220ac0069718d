/** A strain as it is written beside a line: tenths of a per cent where it is small. */
export const percent = (share: number): string =>
  `${(share * 100).toFixed(share < 0.0995 ? 1 : 0)} %`;
