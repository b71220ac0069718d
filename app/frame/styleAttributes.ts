/**
 * A page as the server writes it has style attributes (drawings are full of them), which a content
 * policy without `unsafe-inline` forbids. They go out as `data-style`, with one style sheet of the
 * page’s own number that says the same; before the page comes to life they are style attributes
 * again, set by script, which the policy allows.
 */

/**
 * A tag up to its style attribute, and that. In what React writes neither text nor attributes hold
 * a bare `<`, `>` or `"`.
 */
const STYLED = /(<[a-zA-Z][^<>]*?\s)style="([^"<>]*)"/g;

const ENTITIES: Record<string, string> = {
  '&quot;': '"',
  '&#x27;': "'",
  '&#39;': "'",
  '&lt;': '<',
  '&gt;': '>',
  '&amp;': '&',
};
const unescaped = (text: string): string =>
  text.replace(/&(?:quot|#x27|#39|lt|gt|amp);/g, (entity) => ENTITIES[entity]!);
/** As a string of a style sheet. */
const quoted = (text: string): string =>
  `"${text.replace(/["\\<\n\r\f]/g, (sign) => `\\${sign.charCodeAt(0).toString(16)} `)}"`;

/** HTML without style attributes, their sheet at the end of its head under `nonce`. */
export function withStylesApart(html: string, nonce: string): string {
  const seen = new Set<string>();
  const apart = html.replace(STYLED, (_, before: string, style: string) => {
    seen.add(style);
    return `${before}data-style="${style}"`;
  });
  // What could end its rule early is left to the script; nothing that is drawn here holds such a
  // sign.
  const rules = [...seen]
    .map(unescaped)
    .filter((style) => !/[{}<]/.test(style))
    .map((style) => `[data-style=${quoted(style)}]{${style}}`);
  return apart.replace(
    '</head>',
    () => `<style nonce="${nonce}" data-styles>${rules.join('')}</style></head>`,
  );
}

/**
 * Makes them style attributes again; before React takes the page over, which expects them there.
 */
export function withStylesBack(page: Document): void {
  for (const element of page.querySelectorAll<HTMLElement | SVGElement>('[data-style]')) {
    element.style.cssText = element.dataset.style!;
    element.removeAttribute('data-style');
  }
  page.querySelector('style[data-styles]')?.remove();
}
