import { writeFileSync } from 'node:fs';
import { type ShellCase, solveShell } from '@plate-fold/core/strike';

/*
 * Draws docs/convergence.svg: how the error of the shell falls as its elements are halved, against closed forms. `npm run
 * convergence` solves and draws it anew.
 */

type Vec3 = [number, number, number];

const E = 200_000;
const NU = 0.3;
const SIDE = 500;
const T = 2;
const Q = 0.001;
const D = (E * T ** 3) / 12 / (1 - NU ** 2);

const square: Vec3[] = [
  [0, 0, 0],
  [SIDE, 0, 0],
  [SIDE, SIDE, 0],
  [0, SIDE, 0],
];
const plate = (kind: 'simple' | 'clamped'): ShellCase => ({
  material: { E, nu: NU },
  thickness: T,
  facets: [{ name: 'plate', polygon: square }],
  supports: [{ kind, id: 'edge', edges: 'outline' }],
  loads: [{ kind: 'pressure', mpa: Q, direction: [0, 0, 1] }],
  analysis: 'linear',
});

/** A beam on edge: pulled sideways in its own plane at its end. */
const [LONG, DEEP, WIDE] = [400, 100, 5];
const beam: ShellCase = {
  material: { E, nu: 0 },
  thickness: WIDE,
  facets: [
    {
      name: 'web',
      polygon: [
        [0, 0, 0],
        [LONG, 0, 0],
        [LONG, DEEP, 0],
        [0, DEEP, 0],
      ],
    },
  ],
  supports: [{ kind: 'clamped', id: 'wall', plane: { x: 0 } }],
  loads: [{ kind: 'line', from: [LONG, 0, 0], to: [LONG, DEEP, 0], force: [0, 1000, 0] }],
  analysis: 'linear',
};
const I = (WIDE * DEEP ** 3) / 12;

interface Line {
  readonly name: string;
  readonly source: string;
  readonly case: ShellCase;
  readonly at: Vec3;
  readonly axis: 1 | 2;
  readonly exact: number;
  readonly sizes: readonly number[];
}

const LINES: readonly Line[] = [
  {
    name: 'simply supported plate, pressure',
    source: 'Navier: 0.00406235 q a⁴ / D',
    case: plate('simple'),
    at: [SIDE / 2, SIDE / 2, 0],
    axis: 2,
    exact: (0.00406235 * Q * SIDE ** 4) / D,
    sizes: [125, 62.5, 31.25, 15.625],
  },
  {
    name: 'clamped plate, pressure',
    source: 'Timoshenko, Woinowsky-Krieger: 0.00126532 q a⁴ / D',
    case: plate('clamped'),
    at: [SIDE / 2, SIDE / 2, 0],
    axis: 2,
    exact: (0.00126532 * Q * SIDE ** 4) / D,
    sizes: [125, 62.5, 31.25, 15.625],
  },
  {
    name: 'beam in its own plane, force at its end',
    source: 'P L³ / 3 E I and its shear, 6 P L / 5 G A',
    case: beam,
    at: [LONG, DEEP / 2, 0],
    axis: 1,
    exact: (1000 * LONG ** 3) / (3 * E * I) + (1.2 * 1000 * LONG) / ((E / 2) * DEEP * WIDE),
    sizes: [50, 25, 12.5, 6.25],
  },
];

const solved = LINES.map(l => ({
  ...l,
  errors: l.sizes.map(elementSize => {
    const r = solveShell({ ...l.case, elementSize }, [l.at]);
    if (!r.ok) throw new Error(r.fault);
    return Math.abs((r.value.deflections[0]?.mm[l.axis] ?? 0) / l.exact - 1);
  }),
}));
for (const s of solved)
  console.log(s.name.padEnd(44), s.errors.map(e => `${(100 * e).toFixed(3)} %`).join('  '));

const [W, H, LEFT, FOOT] = [860, 470, 70, 60];
const [LOW, HIGH] = [1e-4, 1];
const STEPS = 4;
const X = (i: number): number => LEFT + ((W - LEFT - 370) * i) / (STEPS - 1);
const Y = (e: number): number =>
  20 + (H - FOOT - 20) * (1 - Math.log10(Math.max(e, LOW) / LOW) / Math.log10(HIGH / LOW));
const INK = ['#1b3f9e', '#8a2d1a', '#2f6b3a'];
const DASH = ['', '7 4', '2 3'];
const decades = [1e-4, 1e-3, 1e-2, 1e-1, 1];
const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${W} ${H}" font-family="sans-serif" font-size="13">
<title>Error of the deflection against the size of the elements</title>
<rect width="${W}" height="${H}" fill="#f4f6f8"/>
${decades.map(d => `<path d="M${LEFT} ${Y(d)}H${X(STEPS - 1)}" stroke="#c3ccd3"/><text x="${LEFT - 8}" y="${Y(d) + 4}" text-anchor="end">${d * 100} %</text>`).join('\n')}
${['1', '1/2', '1/4', '1/8'].map((t, i) => `<text x="${X(i)}" y="${H - FOOT + 22}" text-anchor="middle">${t}</text>`).join('\n')}
<text x="${(LEFT + X(STEPS - 1)) / 2}" y="${H - 14}" text-anchor="middle">size of the elements, halved from step to step</text>
<text x="${LEFT}" y="14">error of the deflection</text>
<path d="M${X(1)} ${Y(0.3)}L${X(3)} ${Y(0.3 / 16)}" stroke="#5b6770" stroke-width="1"/>
<text x="${X(2) + 4}" y="${Y(0.3 / 4) - 8}" fill="#5b6770">second order</text>
${solved
  .map(
    (s, k) =>
      `<polyline points="${s.errors.map((e, i) => `${X(i)},${Y(e)}`).join(' ')}" fill="none" stroke="${INK[k]}" stroke-width="2" stroke-dasharray="${DASH[k]}"/>
${s.errors.map((e, i) => `<circle cx="${X(i)}" cy="${Y(e)}" r="3.5" fill="${INK[k]}"/>`).join('')}
<path d="M${W - 348} ${60 + 62 * k}h26" stroke="${INK[k]}" stroke-width="2" stroke-dasharray="${DASH[k]}"/><text x="${W - 316}" y="${64 + 62 * k}">${s.name.split(',')[0]},</text><text x="${W - 316}" y="${80 + 62 * k}">${s.name.split(', ')[1]}</text><text x="${W - 316}" y="${95 + 62 * k}" font-size="9.5" fill="#5b6770">${s.source}</text>`,
  )
  .join('\n')}
</svg>
`;
writeFileSync(new URL('../docs/convergence.svg', import.meta.url), svg);
