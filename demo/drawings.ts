/**
 * Shaded drawings that stand for photographs in the demonstration job: parts of the invented van as
 * they were found, cut and fitted. SVG of 1600 × 1200; nothing real is in them.
 */
const [WIDTH, HEIGHT] = [1600, 1200];

/**
 * Always the same row of figures that look like chance: each drawing is the same at every start.
 */
function series(seed: number): () => number {
  let state = seed;
  return () => (state = (Math.imul(state, 48_271) >>> 0) % 2_147_483_647) / 2_147_483_647;
}

/** An uneven patch round a place: a hole, a scab of rust. */
function patch(
  next: () => number,
  x: number,
  y: number,
  rx: number,
  ry: number,
  fill: string,
): string {
  const corners = 15;
  const points = Array.from({ length: corners }, (_, i) => {
    const a = (2 * Math.PI * i) / corners;
    const r = 0.7 + 0.5 * next();
    return `${(x + rx * r * Math.cos(a)).toFixed(0)},${(y + ry * r * Math.sin(a)).toFixed(0)}`;
  });
  return `<polygon points="${points.join(' ')}" fill="${fill}" stroke-linejoin="round"/>`;
}

/** Rust round a place: scabs from dark to bright, and grains strewn about. */
function rust(next: () => number, x: number, y: number, reach: number): string {
  const scabs = ['#5a2d17', '#6f3a1b', '#8a4a20', '#a65c29'].map((fill, i) =>
    patch(next, x, y, reach * (1.25 - 0.22 * i), reach * (0.8 - 0.14 * i), fill),
  );
  const grains = Array.from({ length: 130 }, () => {
    const [a, r] = [2 * Math.PI * next(), reach * 1.7 * next()];
    return `<circle cx="${(x + r * Math.cos(a)).toFixed(0)}" cy="${(y + r * 0.7 * Math.sin(a)).toFixed(0)}" r="${(2 + 6 * next()).toFixed(1)}" fill="#7a4220" opacity="${(0.3 + 0.5 * next()).toFixed(2)}"/>`;
  });
  return [...grains, ...scabs].join('');
}

const GROUND = `<defs>
  <linearGradient id="paint" x1="0" y1="0" x2="0.3" y2="1"><stop offset="0" stop-color="#7f9a86"/><stop offset="0.55" stop-color="#5f7d6a"/><stop offset="1" stop-color="#3f5547"/></linearGradient>
  <linearGradient id="steel" x1="0" y1="0" x2="0.4" y2="1"><stop offset="0" stop-color="#c9cdd0"/><stop offset="0.5" stop-color="#9aa1a7"/><stop offset="1" stop-color="#6d757c"/></linearGradient>
  <linearGradient id="shade" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#000" stop-opacity="0"/><stop offset="1" stop-color="#000" stop-opacity="0.55"/></linearGradient>
  <radialGradient id="lamp" cx="0.3" cy="0.2" r="1"><stop offset="0" stop-color="#fff" stop-opacity="0.35"/><stop offset="0.6" stop-color="#fff" stop-opacity="0"/></radialGradient>
</defs>`;

const whole = (inside: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" viewBox="0 0 ${WIDTH} ${HEIGHT}">${GROUND}${inside}<rect width="${WIDTH}" height="${HEIGHT}" fill="url(#lamp)"/></svg>`;

/** The step well from above: the outer skin, the tray, the riser behind it. */
const well = (floor: string): string =>
  `<rect width="${WIDTH}" height="${HEIGHT}" fill="url(#paint)"/>
  <path d="M240 300 L1360 260 L1430 900 L170 940 Z" fill="#2e3a33"/>
  <path d="M290 350 L1310 315 L1350 560 L265 600 Z" fill="#4d6355"/><path d="M290 350 L1310 315 L1350 560 L265 600 Z" fill="url(#shade)"/>
  <path d="M265 600 L1350 560 L1390 860 L220 895 Z" fill="${floor}"/>
  <path d="M170 940 L1430 900 L1440 960 L160 1002 Z" fill="#88a18f"/>`;

const wellFound = (): string => {
  const next = series(11);
  return whole(
    `${well('#52675a')}${rust(next, 560, 760, 150)}${rust(next, 1180, 720, 95)}${patch(next, 560, 760, 62, 40, '#120d09')}${patch(next, 1180, 722, 26, 17, '#120d09')}`,
  );
};
const wellSanded = (): string => {
  const next = series(11);
  return whole(
    `${well('url(#steel)')}${rust(next, 560, 760, 190)}${rust(next, 1180, 720, 150)}${patch(next, 560, 760, 128, 74, '#120d09')}${patch(next, 1180, 722, 84, 48, '#120d09')}${patch(next, 850, 790, 30, 22, '#120d09')}`,
  );
};
const wellCut = (): string =>
  whole(
    `${well('#171310')}<path d="M265 600 L1350 560 L1390 860 L220 895 Z" fill="none" stroke="#d7dbde" stroke-width="9"/>
    <path d="M420 600 L440 890 M800 580 L820 876 M1180 566 L1215 866" stroke="#574a3c" stroke-width="34"/>
    <path d="M120 480 L1480 430" stroke="#b9975b" stroke-width="46"/><path d="M120 480 L1480 430" stroke="#8d6f3f" stroke-width="10"/>`,
  );

/** The wheel arch from the side, the lip below it in bare metal with light through the gap. */
const archTrial = (): string =>
  whole(
    `<rect width="${WIDTH}" height="${HEIGHT}" fill="url(#paint)"/>
    <path d="M120 1200 C180 560 520 300 800 300 C1080 300 1420 560 1480 1200 Z" fill="#14110e"/>
    <path d="M120 1200 C180 560 520 300 800 300 C1080 300 1420 560 1480 1200 L1400 1200 C1350 620 1040 372 800 372 C560 372 250 620 200 1200 Z" fill="url(#steel)"/>
    <path d="M208 930 C300 560 560 366 800 366 C900 366 1000 390 1090 440" fill="none" stroke="#fff6d8" stroke-width="7"/>
    <path d="M1090 440 C1200 510 1290 640 1350 830" fill="none" stroke="#2a2825" stroke-width="4"/>
    <rect x="640" y="250" width="60" height="150" rx="10" fill="#c2461d"/><rect x="1010" y="300" width="60" height="150" rx="10" fill="#c2461d"/>`,
  );

const tacks = (): string => {
  const next = series(5);
  const spots = Array.from({ length: 12 }, (_, i) => {
    const [x, y] = [140 + i * 118, 640 + 14 * Math.sin(i)];
    return `<ellipse cx="${x}" cy="${y}" rx="58" ry="46" fill="#6b5a86" opacity="0.35"/><ellipse cx="${x}" cy="${y}" rx="40" ry="32" fill="#9a7b3f" opacity="0.5"/>${patch(next, x, y, 22, 18, '#d9d6cf')}`;
  });
  return whole(
    `<rect width="${WIDTH}" height="${HEIGHT}" fill="url(#steel)"/><rect y="650" width="${WIDTH}" height="550" fill="#8f979d"/>
    <path d="M0 645 C400 655 900 640 1600 652" stroke="#2b2a28" stroke-width="5" fill="none"/>${spots.join('')}`,
  );
};

/**
 * The sill box from below: the outer flange, the box, rust along its lower edge with holes in it.
 */
const sillFound = (): string => {
  const next = series(29);
  const scabs = [480, 640, 790, 930, 1080].map((x) => rust(next, x, 800, 70)).join('');
  const holes = [650, 800, 925, 1010].map((x) => patch(next, x, 808, 34, 13, '#120d09')).join('');
  return whole(
    `<rect width="${WIDTH}" height="${HEIGHT}" fill="#3b3f3c"/>
    <path d="M0 300 L1600 220 L1600 520 L0 610 Z" fill="url(#paint)"/>
    <path d="M0 610 L1600 520 L1600 830 L0 905 Z" fill="#566a5d"/><path d="M0 610 L1600 520 L1600 830 L0 905 Z" fill="url(#shade)"/>
    <path d="M0 800 L1600 735 L1600 830 L0 905 Z" fill="#6c7f72"/>
    <path d="M0 905 L1600 830 L1600 862 L0 940 Z" fill="#8d9a90"/>
    <ellipse cx="1250" cy="742" rx="44" ry="20" fill="#15110d"/>${scabs}${holes}`,
  );
};

/** The front pillar with the door off: two hinges, each with its bolts. */
const pillar = (): string => {
  const bolt = (x: number, y: number) =>
    `<circle cx="${x}" cy="${y}" r="30" fill="#8d9296"/><circle cx="${x}" cy="${y}" r="19" fill="#5d6469"/><path d="M${x - 15} ${y}h30M${x} ${y - 15}v30" stroke="#2f3437" stroke-width="5"/>`;
  const hinge = (y: number) =>
    `<path d="M520 ${y} h330 v150 h-330 z" fill="url(#steel)"/><rect x="835" y="${y - 16}" width="48" height="182" rx="20" fill="#7f878d"/>${bolt(600, y + 75)}${bolt(740, y + 75)}`;
  return whole(
    `<rect width="${WIDTH}" height="${HEIGHT}" fill="#41453f"/><path d="M360 0 L900 0 L960 1200 L330 1200 Z" fill="url(#paint)"/>
    <path d="M900 0 L1010 0 L1090 1200 L960 1200 Z" fill="#2d3630"/>${hinge(210)}${hinge(850)}
    <path d="M330 1120 L960 1120 L966 1200 L328 1200 Z" fill="#5a3a22" opacity="0.55"/>`,
  );
};

export const DRAWINGS = { wellFound, pillar, sillFound, wellSanded, wellCut, archTrial, tacks };
export type DrawingName = keyof typeof DRAWINGS;
