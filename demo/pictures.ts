/** The pictures of the school: drawn, since nobody is shown who is there. Each is an SVG of 1600 by 1000. */

const SKY = ['#cfe4e6', '#f3ead6'] as const;
const DUSK = ['#f0c394', '#f7e6cc'] as const;
const INK = '#1d2b33';
const SEA = '#0e6470';
const SAND = '#e2d3b1';
const WOOD = '#b0793f';
const PALE = '#fffdf9';

const drawn = (title: string, ...parts: readonly string[]): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="1600" height="1000" viewBox="0 0 1600 1000"><title>${title}</title>${parts.join('')}</svg>`;

const sky = ([top, low]: readonly [string, string]): string =>
  `<defs><linearGradient id="sky" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="${top}"/><stop offset="1" stop-color="${low}"/></linearGradient></defs><rect width="1600" height="1000" fill="url(#sky)"/>`;
const sun = (x: number, y: number): string => `<circle cx="${x}" cy="${y}" r="86" fill="${PALE}" opacity=".75"/>`;
const water = (y: number, colour = SEA): string =>
  `<path d="M0 ${y} q200 -34 400 0 t400 0 t400 0 t400 0 V1000 H0z" fill="${colour}"/><path d="M0 ${y + 120} q200 -26 400 0 t400 0 t400 0 t400 0" fill="none" stroke="${PALE}" stroke-width="5" opacity=".35"/>`;
const boat = (x: number, y: number, size: number, sail = PALE): string =>
  `<g transform="translate(${x} ${y}) scale(${size})"><path d="M0 -250 L120 -40 H0z" fill="${sail}"/><path d="M-14 -210 L-100 -40 H-14z" fill="${sail}" opacity=".8"/><path d="M-7 -262 h10 v250 h-10z" fill="${INK}"/><path d="M-150 -20 H160 q-30 70 -90 76 H-90 q-44 -16 -60 -76z" fill="${WOOD}"/><path d="M-150 -20 H160" stroke="${INK}" stroke-width="10"/></g>`;
const shed = (x: number, y: number, width: number, colour = INK): string =>
  `<g transform="translate(${x} ${y})"><path d="M0 0 L${width / 2} ${-width / 3} L${width} 0 V${width / 2} H0z" fill="${colour}"/><rect x="${width * 0.36}" y="${width * 0.14}" width="${width * 0.28}" height="${width * 0.36}" fill="${SAND}"/></g>`;
/** A hull on the stocks, with its ribs. */
const hull = (x: number, y: number, size: number, ribs: number): string => {
  const lines = Array.from({ length: ribs }, (_, n) => {
    const at = -520 + (1040 * (n + 0.5)) / ribs;
    const high = 210 - (at * at) / 2600;
    return `<path d="M${at} ${-high} q-26 ${high * 0.9} 0 ${high + 96}" fill="none" stroke="${INK}" stroke-width="13"/>`;
  });
  return `<g transform="translate(${x} ${y}) scale(${size})">${lines.join('')}<path d="M-600 -150 Q0 150 600 -150 Q520 120 300 130 H-300 Q-520 120 -600 -150z" fill="${WOOD}"/><path d="M-560 -70 Q0 190 560 -70 M-500 10 Q0 210 500 10" fill="none" stroke="${INK}" stroke-width="7" opacity=".5"/><path d="M-380 130 v110 M380 130 v110 M0 130 v110" stroke="${INK}" stroke-width="22"/></g>`;
};
const plane = (x: number, y: number, turn: number): string =>
  `<g transform="translate(${x} ${y}) rotate(${turn})"><rect x="-210" y="-40" width="420" height="76" rx="16" fill="${WOOD}"/><path d="M-20 -40 L60 -150 L92 -136 L40 -40z" fill="${INK}"/><path d="M110 -40 q20 -92 92 -60 q28 18 -14 60z" fill="${INK}"/></g>`;
const plank = (y: number): string =>
  `<rect y="${y}" width="1600" height="96" fill="${WOOD}" opacity=".85"/><path d="M0 ${y + 30} H1600 M0 ${y + 62} H1600" stroke="${INK}" stroke-width="3" opacity=".25"/>`;

export interface DemoPicture {
  readonly name: string;
  readonly alternative: string;
  readonly svg: string;
}

/** By the word that the demo texts name them by. */
export const PICTURES = {
  quay: {
    name: 'The quay at high water',
    alternative: 'The school’s sheds on the quay, with a sailing boat passing in front',
    svg: drawn(
      'Quay',
      sky(SKY),
      sun(1240, 230),
      `<rect y="560" width="1600" height="110" fill="${SAND}"/>`,
      shed(180, 430, 330),
      shed(560, 450, 280, '#55636b'),
      shed(900, 440, 300),
      water(660),
      boat(1290, 770, 0.95),
    ),
  },
  slipway: {
    name: 'The slipway',
    alternative: 'A hull on the slipway, half in the water',
    svg: drawn(
      'Slipway',
      sky(DUSK),
      sun(300, 250),
      water(620),
      `<path d="M520 1000 L900 560 H1300 L1600 1000z" fill="${SAND}"/><path d="M700 1000 L985 560 M1400 1000 L1200 560" stroke="${INK}" stroke-width="16"/>`,
      hull(1090, 610, 0.5, 0),
    ),
  },
  frames: {
    name: 'Frames on the stocks',
    alternative: 'The ribs of a clinker boat stand up from her keel in the long shed',
    svg: drawn(
      'Frames',
      `<rect width="1600" height="1000" fill="#efe6d3"/><path d="M0 0 H1600 V150 L800 40 L0 150z" fill="#c9b48a"/><rect y="820" width="1600" height="180" fill="#8a6a44"/>`,
      hull(800, 560, 1.05, 9),
    ),
  },
  bench: {
    name: 'At the bench',
    alternative: 'A wooden plane on a plank, with shavings beside it',
    svg: drawn(
      'Bench',
      `<rect width="1600" height="1000" fill="#dfe7e4"/><rect y="640" width="1600" height="360" fill="#7a5530"/>`,
      plank(560),
      plane(760, 520, -3),
      `<path d="M300 548 q-50 -90 30 -96 q70 6 36 70 M420 552 q-36 -66 26 -70 q54 6 26 52" fill="none" stroke="${WOOD}" stroke-width="16"/>`,
    ),
  },
  sails: {
    name: 'Four boats on a reach',
    alternative: 'Four small boats sail side by side towards the sun',
    svg: drawn(
      'Sails',
      sky(DUSK),
      sun(800, 300),
      water(600),
      boat(260, 740, 0.8),
      boat(610, 700, 0.62, '#f0c394'),
      boat(980, 760, 0.9),
      boat(1340, 700, 0.62, '#cfe4e6'),
    ),
  },
  ferry: {
    name: 'The ferry at our quay',
    alternative: 'A small ferry with a blue stripe lies at the quay steps',
    svg: drawn(
      'Ferry',
      sky(SKY),
      sun(260, 220),
      `<rect x="1130" y="470" width="470" height="530" fill="${SAND}"/><path d="M1130 560 h-70 v80 h-70 v80 h-70 v280 h210z" fill="#c9b48a"/>`,
      water(690),
      `<path d="M240 600 H1010 q-30 150 -130 160 H380 q-100 -10 -140 -160z" fill="${PALE}"/><path d="M250 640 H1002" stroke="${SEA}" stroke-width="26"/><rect x="430" y="480" width="380" height="120" rx="10" fill="${PALE}"/><path d="M460 510 h60 v50 h-60z M550 510 h60 v50 h-60z M640 510 h60 v50 h-60z M730 510 h50 v50 h-50z" fill="${INK}"/><rect x="600" y="400" width="54" height="80" fill="${SEA}"/>`,
    ),
  },
} as const satisfies Record<string, DemoPicture>;
export type PictureName = keyof typeof PICTURES;
