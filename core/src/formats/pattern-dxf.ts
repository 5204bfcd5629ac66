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
import {
  type FlatPattern,
  type HoleShape,
  holeOutline,
  type NestedSheet,
  onSheet,
  type PlacedBlank,
} from '../fold';
import { type Polygon, toRadians, type Vec2 } from '../geometry';
import { MM_PER_INCH, type UnitSystem } from '../units';
import { oneLine } from './names';
import { arrow, beside, cross, HOLE_TEXT, holeLabel, label, wayMark } from './pattern-mark';

const LAYERS = [
  ['CUT', Colors.White],
  ['BEND_UP', Colors.Blue],
  ['BEND_DOWN', Colors.Red],
  ['ETCH', Colors.Green],
  ['PILOT', Colors.Magenta],
  ['CSK', Colors.Cyan],
] as const;

type Layer = (typeof LAYERS)[number][0];

/** An empty drawing with the layers of a blank and its unit in the header. */
function drawing(system: UnitSystem): DxfWriter {
  const dxf = new DxfWriter();
  dxf.setUnits(system === 'inch' ? Units.Inches : Units.Millimeters);
  for (const [name, color] of LAYERS) dxf.addLayer(name, color, 'CONTINUOUS');
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
  const hole = (shape: HoleShape, q: Vec2): void => {
    if ('circle' in shape) dxf.addCircle(at(q), (shape.circle / 2) * k);
    else if ('square' in shape) closed(holeOutline(shape, q));
    else slot(shape.slot, shape.along, q);
  };
  // two straight sides and two true half circles
  const slot = ([length, width]: readonly [number, number], along: number, q: Vec2): void => {
    const a = toRadians(along);
    const [c, s] = [Math.cos(a), Math.sin(a)];
    const h = Math.max(0, length - width) / 2;
    const corner = (x: number, y: number): Vec2 => [q[0] + x * c - y * s, q[1] + x * s + y * c];
    const vertices = [
      { point: point2d(...put(corner(-h, -width / 2))) },
      { point: point2d(...put(corner(h, -width / 2))), bulge: 1 },
      { point: point2d(...put(corner(h, width / 2))) },
      { point: point2d(...put(corner(-h, width / 2))), bulge: 1 },
    ];
    dxf.addLWPolyline(vertices, { flags: LWPolylineFlags.Closed });
  };
  for (const h of p.holes) {
    if (h.cut) {
      on(h.kind === 'pilot' ? 'PILOT' : 'CUT');
      hole(h.cut, h.at);
    }
    if (h.sink) {
      on('CSK');
      dxf.addCircle(at(h.at), (h.sink.diameter / 2) * k);
    }
    on('ETCH');
    if (!h.cut) for (const [a, b] of cross(h.at)) line(a, b);
    const [dx, dy] = beside(h);
    dxf.addText(at([h.at[0] + dx, h.at[1] + dy]), HOLE_TEXT * k, oneLine(holeLabel(h, system)), {
      horizontalAlignment: TextHorizontalAlignment.Left,
      verticalAlignment: TextVerticalAlignment.BaseLine,
      rotation: place.turn,
    });
  }
  for (const b of p.bends) {
    on(b.direction === 'up' ? 'BEND_UP' : 'BEND_DOWN');
    line(b.from, b.to);
  }
  on('ETCH');
  for (const o of p.marked) closed(o);
  for (const [a, b] of arrow(p.etch.at, p.etch.grain)) line(a, b);
  const way = wayMark(p);
  for (const [a, b] of way?.lines ?? []) line(a, b);
  if (way)
    dxf.addText(at(way.at), 10 * k, way.text, {
      horizontalAlignment: TextHorizontalAlignment.Left,
      verticalAlignment: TextVerticalAlignment.BaseLine,
      rotation: place.turn,
    });
  dxf.addText(at([p.etch.at[0], p.etch.at[1] + 12]), 12 * k, oneLine(label(p)), {
    horizontalAlignment: TextHorizontalAlignment.Left,
    verticalAlignment: TextVerticalAlignment.BaseLine,
    rotation: place.turn,
  });
}

/** A flat pattern as DXF text: layers CUT, BEND_UP, BEND_DOWN, ETCH, PILOT and CSK, the unit in the header. */
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
