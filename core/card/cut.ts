/** The beginning of a text, at most `most` UTF-16 units, no character cut in two. */
export const cut = (text: string, most: number): string =>
  text.slice(0, most).replace(/[\ud800-\udbff]$/, '');
