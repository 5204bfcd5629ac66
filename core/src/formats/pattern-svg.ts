import { type BendLine, type FlatPattern, holeOutline, type PatternHole } from '../fold';
import type { Polygon, Vec2 } from '../geometry';
import { boxOf } from '../geometry';
import { roundTo, type UnitSystem } from '../units';
import { oneLine } from './names';
import { arrow, beside, cross, HOLE_TEXT, holeLabel, label, wayMark } from './pattern-mark';

const xml = (s: string): string =>
  s.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

/** A flat pattern as SVG to scale: one unit a millimeter, the page as large as the blank and a margin. */
export function patternSvg(p: FlatPattern, units: UnitSystem = 'metric'): string {
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
  const shape = (h: PatternHole): string =>
    !h.cut ? '' : 'circle' in h.cut ? circle(h.at, h.cut.circle) : ring(holeOutline(h.cut, h.at));
  const cut = [
    ...p.outline.map(ring),
    ...p.cutouts.map(c => ('circle' in c ? circle(c.at, c.circle) : ring(c.polygon))),
    ...p.holes.filter(h => h.kind !== 'pilot').map(h => shape(h)),
  ].join('');
  const pilots = p.holes.filter(h => h.kind === 'pilot').map(h => shape(h));
  const sinks = p.holes.flatMap(h => (h.sink ? [circle(h.at, h.sink.diameter)] : []));
  const marks = p.holes.filter(h => !h.cut).flatMap(h => cross(h.at).map(([a, b]) => `M${at(a)}L${at(b)}`));
  const names = p.holes.map(h => {
    const [dx, dy] = beside(h);
    const [x, y] = at([h.at[0] + dx, h.at[1] + dy]).split(' ');
    return `<text class="hole" x="${x}" y="${y}">${xml(holeLabel(h, units))}</text>`;
  });
  const way = wayMark(p);
  const bend = (b: BendLine): string =>
    `<path class="${b.direction === 'up' ? 'bend-up' : 'bend-down'}" d="M${at(b.from)}L${at(b.to)}"/>`;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(w)}mm" height="${n(h)}mm" viewBox="0 0 ${n(w)} ${n(h)}">`,
    `<title>${xml(oneLine(label(p)))}</title>`,
    `<style>path{fill:none;stroke:#000;stroke-width:.4}.bend-up{stroke:#00f;stroke-dasharray:8 3}.bend-down{stroke:#c00;stroke-dasharray:3 3}.etch{stroke:#080}.pilot{stroke:#808}.csk{stroke:#088}text{font:12px sans-serif;fill:#080}.hole{font-size:${HOLE_TEXT}px}</style>`,
    `<path class="cut" d="${cut}"/>`,
    ...(pilots.length > 0 ? [`<path class="pilot" d="${pilots.join('')}"/>`] : []),
    ...(sinks.length > 0 ? [`<path class="csk" d="${sinks.join('')}"/>`] : []),
    ...(marks.length > 0 ? [`<path class="etch" d="${marks.join('')}"/>`] : []),
    ...names,
    ...p.bends.map(bend),
    `<path class="etch" d="${p.marked.map(ring).join('')}${arrow(p.etch.at, p.etch.grain)
      .map(([a, b]) => `M${at(a)}L${at(b)}`)
      .join('')}"/>`,
    ...(way
      ? [
          `<path class="etch" d="${way.lines.map(([a, b]) => `M${at(a)}L${at(b)}`).join('')}"/>`,
          `<text x="${at(way.at).split(' ')[0]}" y="${at(way.at).split(' ')[1]}">${way.text}</text>`,
        ]
      : []),
    `<text x="${at(p.etch.at).split(' ')[0]}" y="${n(max[1] - p.etch.at[1] + margin - 6)}">${xml(oneLine(label(p)))}</text>`,
    '</svg>\n',
  ].join('\n');
}
