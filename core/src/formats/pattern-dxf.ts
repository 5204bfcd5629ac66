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
import { type FlatPattern, type NestedSheet, onSheet, type PlacedBlank } from '../fold';
import type { Polygon, Vec2 } from '../geometry';
import { MM_PER_INCH, type UnitSystem } from '../units';
import { arrow, label } from './pattern-mark';

const LAYERS = [
  ['CUT', Colors.White],
  ['BEND_UP', Colors.Blue],
  ['BEND_DOWN', Colors.Red],
  ['ETCH', Colors.Green],
] as const;

type Layer = (typeof LAYERS)[number][0];

/** An empty drawing with the layers of a blank and its unit in the header. */
function drawing(system: UnitSystem): DxfWriter {
  const dxf = new DxfWriter();
  dxf.setUnits(system === 'inch' ? Units.Inches : Units.Millimeters);
  for (const [name, colour] of LAYERS) dxf.addLayer(name, colour, 'CONTINUOUS');
  return dxf;
}

/** Draws a blank where it lies. Circles stay circles; the rest is closed polylines. */
function draw(
  dxf: DxfWriter,
  p: FlatPattern,
  system: UnitSystem,
  place: Pick<PlacedBlank, 'turn' | 'shift'>,
): void {
  const k = system === 'inch' ? 1 / MM_PER_INCH : 1;
  const put = (q: Vec2): Vec2 => {
    const [x, y] = onSheet(place, q);
    return [x * k, y * k];
  };
  const on = (layer: Layer): void => void dxf.setCurrentLayerName(layer);
  const at = (q: Vec2): ReturnType<typeof point3d> => point3d(...put(q));
  const closed = (o: Polygon): void =>
    void dxf.addLWPolyline(
      o.map(q => ({ point: point2d(...put(q)) })),
      { flags: LWPolylineFlags.Closed },
    );
  const line = (a: Vec2, b: Vec2): void => void dxf.addLine(at(a), at(b));
  on('CUT');
  for (const o of p.outline) closed(o);
  for (const c of p.cutouts) {
    if ('circle' in c) dxf.addCircle(at(c.at), (c.circle / 2) * k);
    else closed(c.polygon);
  }
  for (const b of p.bends) {
    on(b.direction === 'up' ? 'BEND_UP' : 'BEND_DOWN');
    line(b.from, b.to);
  }
  on('ETCH');
  for (const o of p.marked) closed(o);
  for (const [a, b] of arrow(p.etch.at, p.etch.grain)) line(a, b);
  dxf.addText(at([p.etch.at[0], p.etch.at[1] + 12]), 12 * k, label(p), {
    horizontalAlignment: TextHorizontalAlignment.Left,
    verticalAlignment: TextVerticalAlignment.BaseLine,
    rotation: place.turn,
  });
}

/** A flat pattern as DXF text: layers CUT, BEND_UP, BEND_DOWN and ETCH, the unit in the header. */
export function patternDxf(p: FlatPattern, system: UnitSystem): string {
  const dxf = drawing(system);
  draw(dxf, p, system, { turn: 0, shift: [0, 0] });
  return dxf.stringify();
}

/**
 * One nested stock sheet as DXF text, every blank where it lies from the sheet's corner on; the sheet's own edge is not
 * drawn, for it is not cut. `patterns` must hold every blank of the sheet.
 */
export function nestDxf(sheet: NestedSheet, patterns: readonly FlatPattern[], system: UnitSystem): string {
  const dxf = drawing(system);
  for (const b of sheet.blanks) {
    const pattern = patterns.find(p => p.panel === b.panel);
    if (!pattern) throw new Error(`no pattern for ${b.panel}`);
    draw(dxf, pattern, system, b);
  }
  return dxf.stringify();
}
