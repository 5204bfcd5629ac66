import { jsPDF } from 'jspdf';
import type { Facts } from '../derive';
import { type FoldedPanel, facetInSpace } from '../fold';
import { boxOf, dot3, type Frame, sub3, toSpace, type Vec2, type Vec3 } from '../geometry';
import { panelWord } from '../plan';
import { fixed, MM_PER_INCH, sentence } from '../units';
import { base64, sfntFromWoff } from './font';
import type { BookFonts } from './sheet';

/** Sheets that a printer has, mm. */
export const PAPERS = { letter: [215.9, 279.4], a4: [210, 297] } as const;
export type Paper = keyof typeof PAPERS;

/** Printers leave so much of a sheet white; sheets lie over one another by so much, mm. */
const MARGIN = 12;
const LAP = 15;
/** Room around what is drawn, mm. */
const AROUND = 12;
/** No template is larger than this many sheets each way. */
const MOST_SHEETS = 40;
const FONT = 'Atkinson';

export interface TemplateWish {
  /** plates of one template, by id: one, or all that share bolts */
  readonly panels: readonly string[];
  readonly paper: Paper;
  readonly fonts: BookFonts;
}

/** A place in the plane of a base: along its first direction (rearward) and its second. */
const flatIn = ({ origin, u, v }: Frame, p: Vec3): Vec2 => {
  const d = sub3(p, origin);
  return [dot3(d, u), dot3(d, v)];
};

interface Drawn {
  readonly panel: FoldedPanel;
  readonly outlines: readonly (readonly Vec2[])[];
  readonly holes: readonly {
    readonly joint: string;
    readonly at: Vec2;
    readonly width: number;
    readonly slot?: readonly [Vec2, Vec2];
  }[];
}

/** A plate as it is held up: seen square to the base of the first, its flats and the holes that its bolts want when all is done. */
function drawnOf(p: FoldedPanel, frame: Frame): Drawn {
  return {
    panel: p,
    outlines: p.facets.map(f => facetInSpace(f).map(q => flatIn(frame, q))),
    holes: p.holes.flatMap(h => {
      const facet = p.facets.find(f => f.id === h.facet);
      if (!facet) return [];
      const at = flatIn(frame, toSpace(facet.frame, h.at));
      const { final } = h;
      if ('circle' in final) return [{ joint: h.joint, at, width: final.circle }];
      if ('square' in final) return [{ joint: h.joint, at, width: final.square }];
      const d = p.blank.developed.find(x => x.facet.id === facet.id);
      const a = (final.along * Math.PI) / 180;
      const way: Vec2 = d
        ? [Math.cos(a) * d.u[0] + Math.sin(a) * d.u[1], Math.cos(a) * d.v[0] + Math.sin(a) * d.v[1]]
        : [Math.cos(a), Math.sin(a)];
      const half = (final.slot[0] - final.slot[1]) / 2;
      const end = (s: number): Vec2 =>
        flatIn(frame, toSpace(facet.frame, [h.at[0] + s * half * way[0], h.at[1] + s * half * way[1]]));
      return [{ joint: h.joint, at, width: final.slot[1], slot: [end(-1), end(1)] as const }];
    }),
  };
}

/**
 * Paper templates of plates at full size, tiled onto sheets that lap, with crosses to lay them by, bars of 100 mm and 4 in that check the
 * printer, and the mark of the front. Seen from below, as they are held up, cut from cardboard, before metal is. Bent plates are drawn as
 * they are when bent. PDF bytes; throws where a plate is not in the build or the template would take more than 40 sheets a side.
 */
export function templatePdf(
  facts: Pick<Facts, 'panels' | 'document'>,
  { panels, paper, fonts }: TemplateWish,
): Uint8Array {
  const chosen = panels.map(id => {
    const p = facts.panels.find(x => x.panel.id === id);
    if (!p) throw new Error(`there is no plate ${id}`);
    return p;
  });
  const [first] = chosen;
  const frame = first?.facets[0]?.frame;
  if (!first || !frame) throw new Error('there is nothing to draw');
  const drawn = chosen.map(p => drawnOf(p, frame));
  const box = boxOf(drawn.flatMap(d => d.outlines.flat()));
  const [x0, y0] = [box.min[0] - AROUND, box.min[1] - AROUND];
  const [w, h] = [box.max[0] - box.min[0] + 2 * AROUND, box.max[1] - box.min[1] + 2 * AROUND];
  const [short, long] = PAPERS[paper];
  // the way that takes fewer sheets
  const count = (size: number, sheet: number): number =>
    Math.max(1, Math.ceil((size - LAP) / (sheet - 2 * MARGIN - LAP)));
  const upright = count(w, short) * count(h, long) <= count(w, long) * count(h, short);
  const [pw, ph] = upright ? [short, long] : [long, short];
  const [nx, ny] = [count(w, pw), count(h, ph)];
  if (Math.max(nx, ny) > MOST_SHEETS)
    throw new Error(`it would take ${nx} by ${ny} sheets: choose fewer plates`);
  const [sx, sy] = [pw - 2 * MARGIN, ph - 2 * MARGIN];
  const pdf = new jsPDF({
    unit: 'mm',
    format: paper,
    orientation: upright ? 'portrait' : 'landscape',
    compress: true,
    floatPrecision: 5,
  });
  for (const [style, woff] of [
    ['normal', fonts.plain],
    ['bold', fonts.bold],
  ] as const) {
    pdf.addFileToVFS(`${FONT}-${style}.ttf`, base64(sfntFromWoff(woff)));
    pdf.addFont(`${FONT}-${style}.ttf`, FONT, style);
  }
  const name = chosen.map(p => sentence(panelWord(p.panel))).join(', ');
  for (let row = 0; row < ny; row++)
    for (let column = 0; column < nx; column++) {
      if (row + column > 0) pdf.addPage(paper, upright ? 'portrait' : 'landscape');
      const [ox, oy] = [MARGIN - x0 - column * (sx - LAP), MARGIN - y0 - row * (sy - LAP)];
      const put = ([x, y]: Vec2): Vec2 => [x + ox, y + oy];
      pdf.saveGraphicsState();
      pdf.rect(MARGIN, MARGIN, sx, sy, null);
      pdf.clip();
      pdf.discardPath();
      for (const d of drawn) draw(pdf, d, put);
      // crosses at the corners of the laps: they stand on both sheets
      pdf.setLineWidth(0.2);
      for (let i = 0; i <= nx; i++)
        for (let j = 0; j <= ny; j++) {
          const [cx, cy] = put([x0 + i * (sx - LAP) + LAP / 2, y0 + j * (sy - LAP) + LAP / 2]);
          pdf.line(cx - 4, cy, cx + 4, cy);
          pdf.line(cx, cy - 4, cx, cy + 4);
        }
      pdf.restoreGraphicsState();
      pdf.setLineWidth(0.1);
      pdf.setDrawColor(150);
      pdf.rect(MARGIN, MARGIN, sx, sy);
      pdf.setDrawColor(0);
      pdf.setFont(FONT, 'bold');
      pdf.setFontSize(9);
      pdf.text(
        `${name}: sheet ${row * nx + column + 1} of ${nx * ny}, row ${row + 1}, column ${column + 1}. Seen from below. Print at 100 %, lap ${fixed(LAP, 0)} mm, cross on cross.`,
        MARGIN,
        MARGIN - 4,
      );
      scales(pdf, ph);
      pdf.setFont(FONT, 'bold');
      pdf.text('< FRONT', pw - MARGIN, MARGIN - 4, { align: 'right' });
    }
  return new Uint8Array(pdf.output('arraybuffer'));
}

/** A bar of 100 mm and one of 4 in under the sheet, with what they are for. */
function scales(pdf: jsPDF, height: number): void {
  const y = height - MARGIN + 4;
  pdf.setLineWidth(0.3);
  const bar = (x: number, length: number, text: string): void => {
    pdf.line(x, y, x + length, y);
    pdf.line(x, y - 1.5, x, y + 1.5);
    pdf.line(x + length, y - 1.5, x + length, y + 1.5);
    pdf.setFont(FONT, 'normal');
    pdf.setFontSize(8);
    pdf.text(text, x, y + 5);
  };
  bar(MARGIN, 100, 'measure: 100 mm');
  if (pdf.internal.pageSize.getWidth() > 2 * MARGIN + 105 + 4 * MM_PER_INCH)
    bar(MARGIN + 105, 4 * MM_PER_INCH, 'measure: 4 in');
  else {
    pdf.line(MARGIN, y - 2.5, MARGIN + 4 * MM_PER_INCH, y - 2.5);
    pdf.text('4 in above', MARGIN + 60, y + 5);
  }
}

/** A plate's flats as lines and its holes at full size, each with its bolt's name and a cross in its middle. */
function draw(pdf: jsPDF, { panel, outlines, holes }: Drawn, put: (p: Vec2) => Vec2): void {
  pdf.setLineWidth(0.35);
  for (const o of outlines) {
    const at = o.map(put);
    at.forEach((a, i) => {
      const b = at[(i + 1) % at.length] as Vec2;
      pdf.line(a[0], a[1], b[0], b[1]);
    });
  }
  for (const hole of holes) {
    const [x, y] = put(hole.at);
    const r = hole.width / 2;
    pdf.setLineWidth(0.25);
    if (hole.slot) {
      const [a, b] = hole.slot.map(put) as [Vec2, Vec2];
      pdf.circle(a[0], a[1], r);
      pdf.circle(b[0], b[1], r);
      const l = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
      const [nx, ny] = [((b[1] - a[1]) / l) * r, (-(b[0] - a[0]) / l) * r];
      pdf.line(a[0] + nx, a[1] + ny, b[0] + nx, b[1] + ny);
      pdf.line(a[0] - nx, a[1] - ny, b[0] - nx, b[1] - ny);
    } else pdf.circle(x, y, r);
    pdf.setLineWidth(0.12);
    pdf.line(x - r - 3, y, x + r + 3, y);
    pdf.line(x, y - r - 3, x, y + r + 3);
    pdf.setFont(FONT, 'normal');
    pdf.setFontSize(8);
    pdf.text(`${panel.panel.mark} ${hole.joint}`, x + r + 1.5, y - r - 1);
  }
}
