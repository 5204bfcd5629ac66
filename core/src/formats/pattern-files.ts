import {
  Colors,
  DxfWriter,
  LWPolylineFlags,
  point2d,
  point3d,
  TextHorizontalAlignment,
  TextVerticalAlignment,
  Units,
} from '@tarikjabiri/dxf';
import type { BendLine, FlatPattern, FoldedPanel, Triangle } from '../fold';
import { angleToBendTo, bendDeduction } from '../fold';
import type { Polygon, Vec2 } from '../geometry';
import { boxOf } from '../geometry';
import { MM_PER_INCH, roundTo, type UnitSystem } from '../units';
import { csv } from './csv';

const LAYERS = [
  ['CUT', Colors.White],
  ['BEND_UP', Colors.Blue],
  ['BEND_DOWN', Colors.Red],
  ['ETCH', Colors.Green],
] as const;

const GRAIN_ARROW = 60;

/** Lines of an arrow along the grain. */
const arrow = (at: Vec2, [gx, gy]: Vec2): readonly (readonly [Vec2, Vec2])[] => {
  const tip: Vec2 = [at[0] + gx * GRAIN_ARROW, at[1] + gy * GRAIN_ARROW];
  const barb = (s: number): Vec2 => [tip[0] - gx * 10 - gy * 5 * s, tip[1] - gy * 10 + gx * 5 * s];
  return [
    [at, tip],
    [tip, barb(1)],
    [tip, barb(-1)],
  ];
};

const label = (p: FlatPattern): string => `${p.mark} ${p.name}`;

/**
 * A flat pattern as DXF text: layers CUT, BEND_UP, BEND_DOWN and ETCH, the unit in the header. Circles stay circles; the
 * rest is closed polylines.
 */
export function patternDxf(p: FlatPattern, system: UnitSystem): string {
  const k = system === 'inch' ? 1 / MM_PER_INCH : 1;
  const dxf = new DxfWriter();
  dxf.setUnits(system === 'inch' ? Units.Inches : Units.Millimeters);
  for (const [name, colour] of LAYERS) dxf.addLayer(name, colour, 'CONTINUOUS');
  const on = (layer: (typeof LAYERS)[number][0]): void => void dxf.setCurrentLayerName(layer);
  const closed = (o: Polygon): void =>
    void dxf.addLWPolyline(
      o.map(q => ({ point: point2d(q[0] * k, q[1] * k) })),
      { flags: LWPolylineFlags.Closed },
    );
  const line = (a: Vec2, b: Vec2): void =>
    void dxf.addLine(point3d(a[0] * k, a[1] * k), point3d(b[0] * k, b[1] * k));
  on('CUT');
  for (const o of p.outline) closed(o);
  for (const c of p.cutouts) {
    if ('circle' in c) dxf.addCircle(point3d(c.at[0] * k, c.at[1] * k), (c.circle / 2) * k);
    else closed(c.polygon);
  }
  for (const b of p.bends) {
    on(b.direction === 'up' ? 'BEND_UP' : 'BEND_DOWN');
    line(b.from, b.to);
  }
  on('ETCH');
  for (const o of p.marked) closed(o);
  for (const [a, b] of arrow(p.etch.at, p.etch.grain)) line(a, b);
  dxf.addText(point3d(p.etch.at[0] * k, (p.etch.at[1] + 12) * k), 12 * k, label(p), {
    horizontalAlignment: TextHorizontalAlignment.Left,
    verticalAlignment: TextVerticalAlignment.BaseLine,
  });
  return dxf.stringify();
}

const xml = (s: string): string =>
  s.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

/** A flat pattern as SVG to scale: one unit a millimetre, the page as large as the blank and a margin. */
export function patternSvg(p: FlatPattern): string {
  const margin = 10;
  const { min, max } = boxOf(p.outline.flat());
  const [w, h] = [max[0] - min[0] + 2 * margin, max[1] - min[1] + 2 * margin];
  const n = (v: number): string => String(roundTo(v, 3));
  // up on the page is to the vehicle's right
  const at = ([x, y]: Vec2): string => `${n(x - min[0] + margin)} ${n(max[1] - y + margin)}`;
  const ring = (o: Polygon): string => `M${o.map(at).join('L')}Z`;
  const circle = (c: Vec2, d: number): string => {
    const r = d / 2;
    return `M${at([c[0] - r, c[1]])}a${n(r)} ${n(r)} 0 1 0 ${n(d)} 0a${n(r)} ${n(r)} 0 1 0 ${n(-d)} 0Z`;
  };
  const cut = [
    ...p.outline.map(ring),
    ...p.cutouts.map(c => ('circle' in c ? circle(c.at, c.circle) : ring(c.polygon))),
  ].join('');
  const bend = (b: BendLine): string =>
    `<path class="${b.direction === 'up' ? 'bend-up' : 'bend-down'}" d="M${at(b.from)}L${at(b.to)}"/>`;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(w)}mm" height="${n(h)}mm" viewBox="0 0 ${n(w)} ${n(h)}">`,
    `<title>${xml(label(p))}</title>`,
    '<style>path{fill:none;stroke:#000;stroke-width:.4}.bend-up{stroke:#00f;stroke-dasharray:8 3}.bend-down{stroke:#c00;stroke-dasharray:3 3}.etch{stroke:#080}text{font:12px sans-serif;fill:#080}</style>',
    `<path class="cut" d="${cut}"/>`,
    ...p.bends.map(bend),
    `<path class="etch" d="${p.marked.map(ring).join('')}${arrow(p.etch.at, p.etch.grain)
      .map(([a, b]) => `M${at(a)}L${at(b)}`)
      .join('')}"/>`,
    `<text x="${at(p.etch.at).split(' ')[0]}" y="${n(max[1] - p.etch.at[1] + margin - 6)}">${xml(label(p))}</text>`,
    '</svg>\n',
  ].join('\n');
}

/** Triangles as ASCII STL, mm. */
export function stl(name: string, triangles: readonly Triangle[]): string {
  const n = (v: number): string => v.toFixed(4);
  const facet = ([a, b, c]: Triangle): string => {
    const [u, v] = [b.map((x, i) => x - (a[i] as number)), c.map((x, i) => x - (a[i] as number))] as [
      number[],
      number[],
    ];
    const normal = [0, 1, 2].map(
      i =>
        (u[(i + 1) % 3] as number) * (v[(i + 2) % 3] as number) -
        (u[(i + 2) % 3] as number) * (v[(i + 1) % 3] as number),
    );
    const l = Math.hypot(...normal) || 1;
    const vertex = (q: readonly number[]): string => `vertex ${q.map(n).join(' ')}`;
    return `facet normal ${normal.map(x => n(x / l)).join(' ')}\nouter loop\n${[a, b, c].map(vertex).join('\n')}\nendloop\nendfacet`;
  };
  const title = name.replace(/\s+/g, '-');
  return `solid ${title}\n${triangles.map(facet).join('\n')}\nendsolid ${title}\n`;
}

/** The bends of plates as CSV: what to set on the brake, one row a bend. Lengths in mm, angles in degrees. */
export const bendTableCsv = (panels: readonly FoldedPanel[]): string =>
  csv(
    [
      'plate',
      'bend',
      'direction',
      'angle',
      'bend to',
      'inside radius mm',
      'K',
      'allowance mm',
      'deduction mm (legs outside)',
      'least radius mm',
      'can be made',
    ],
    panels.flatMap(p =>
      p.bends
        .filter(b => b.angle !== 0)
        .map(b => {
          const to = angleToBendTo(Math.abs(b.angle), b.insideRadius, p.sheet.thickness, p.material);
          return [
            p.panel.mark,
            b.id,
            b.angle > 0 ? 'up' : 'down',
            roundTo(Math.abs(b.angle), 2),
            to === undefined ? '' : roundTo(to, 2),
            roundTo(b.insideRadius, 3),
            roundTo(b.kFactor, 4),
            roundTo(b.allowanceMm, 3),
            roundTo(bendDeduction(Math.abs(b.angle), b.insideRadius, p.sheet.thickness, b.kFactor), 3),
            Number.isFinite(b.minRadiusMm) ? roundTo(b.minRadiusMm, 3) : '',
            b.ok ? 'yes' : 'no',
          ];
        }),
    ),
  );
