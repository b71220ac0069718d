import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import fc from 'fast-check';
import { withStylesApart } from './styleAttributes';

const page = (...inside: React.ReactNode[]) =>
  renderToStaticMarkup(
    createElement('html', null, createElement('head'), createElement('body', null, ...inside)),
  );

test('no style attribute is left, each is said again by a rule of the page’s number, and nothing else has changed', () => {
  // React warns of a semicolon in a value.
  const value = fc
    .string({ unit: 'binary-ascii', maxLength: 20 })
    .map((text) => text.replaceAll(';', ','));
  fc.assert(
    fc.property(
      fc.array(fc.record({ style: value, text: value, title: value }), { maxLength: 8 }),
      (all) => {
        const html = page(
          ...all.map(({ style, text, title }, i) =>
            createElement(
              'p',
              { key: i, title, style: { content: style, '--mark': 'x' } as object },
              text,
            ),
          ),
        );
        const apart = withStylesApart(html, 'n');
        const [head, body] = apart.split('</head>') as [string, string];
        expect(body).not.toMatch(/<[a-z][^<>]* style="/);
        // Back again it is what React wrote.
        const back = body.replace(/(<[a-zA-Z][^<>]*?\s)data-style="/g, '$1style="');
        expect(back).toBe(html.split('</head>')[1]);
        expect(head).toContain('<style nonce="n" data-styles>');
        expect(head.match(/<style/g)).toHaveLength(1);
      },
    ),
  );
});

test('a style written in a text or in data of a script is no attribute', () => {
  const said = 'say <b style="color:red"> here';
  const script = createElement('script', {
    key: 's',
    dangerouslySetInnerHTML: { __html: 'x = "a style=\\"b\\""' },
  });
  const html = page(createElement('p', { key: 'p', title: said }, said), script);
  expect(withStylesApart(html, 'n').replace('<style nonce="n" data-styles></style>', '')).toBe(
    html,
  );
});

test('what could end a rule early gets none', () => {
  const html = page(createElement('p', { style: { '--x': 'a}body{display:none' } as object }));
  expect(withStylesApart(html, 'n')).toContain('<style nonce="n" data-styles></style>');
});
