/** The beginning of a text, at most so long, and no sign cut in two. */
export const cut = (text: string, most: number): string =>
  text.slice(0, most).replace(/[\ud800-\udbff]$/, '');
