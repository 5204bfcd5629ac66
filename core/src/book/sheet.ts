import { jsPDF } from 'jspdf';
import { autoTable } from 'jspdf-autotable';
import type { Polygon, Vec2 } from '../geometry';
import { base64, sfntFromWoff } from './font';

/** Fonts of the book as WOFF files: text and its bold. */
export interface BookFonts {
  readonly plain: Uint8Array;
  readonly bold: Uint8Array;
}

const FONT = 'Atkinson';
/** A4, mm. */
export const PAGE = { width: 210, height: 297, margin: 15 } as const;
const GRAY = 110;

/** A page under a pencil: text, tables and line drawings, black on white. All places in mm from the top left of the page. */
export class Sheet {
  readonly pdf: jsPDF;
  /** where the next thing goes */
  y: number = PAGE.margin;
  readonly #foot: string;

  constructor(fonts: BookFonts, foot: string) {
    this.pdf = new jsPDF({ unit: 'mm', format: 'a4', compress: true });
    this.#foot = foot;
    for (const [style, woff] of [
      ['normal', fonts.plain],
      ['bold', fonts.bold],
    ] as const) {
      const name = `${FONT}-${style}.ttf`;
      this.pdf.addFileToVFS(name, base64(sfntFromWoff(woff)));
      this.pdf.addFont(name, FONT, style);
    }
    this.pdf.setFont(FONT, 'normal');
    this.pdf.setLineJoin('round');
  }

  get width(): number {
    return PAGE.width - 2 * PAGE.margin;
  }

  page(title: string): void {
    this.pdf.addPage();
    this.y = PAGE.margin;
    this.title(title);
  }

  /** Begins a new page where less than this is left on the present one. */
  room(mm: number): void {
    if (this.y + mm <= PAGE.height - PAGE.margin - 6) return;
    this.pdf.addPage();
    this.y = PAGE.margin;
  }

  title(text: string, size = 16): void {
    this.#say(text, size, 'bold');
    this.y += 1.5;
  }

  head(text: string): void {
    this.room(16);
    this.y += 3;
    this.#say(text, 11.5, 'bold');
  }

  text(text: string, size = 9.5): void {
    this.#say(text, size, 'normal');
  }

  #say(text: string, size: number, style: 'normal' | 'bold'): void {
    this.pdf.setFont(FONT, style);
    this.pdf.setFontSize(size);
    this.pdf.setTextColor(0);
    const line = size * 0.3528 * 1.25;
    for (const part of this.pdf.splitTextToSize(text, this.width) as string[]) {
      this.room(line);
      this.pdf.text(part, PAGE.margin, this.y + line * 0.8);
      this.y += line;
    }
    this.pdf.setFont(FONT, 'normal');
  }

  /** A table under a line of heads; `wide` gives widths in mm by column, the rest share what is left. */
  table(
    heads: readonly string[],
    rows: readonly (readonly string[])[],
    wide: Readonly<Record<number, number>> = {},
    right: readonly number[] = [],
  ): void {
    const columnStyles = Object.fromEntries(
      heads.map((_, i) => [
        i,
        {
          ...(wide[i] === undefined ? {} : { cellWidth: wide[i] }),
          halign: right.includes(i) ? ('right' as const) : ('left' as const),
        },
      ]),
    );
    autoTable(this.pdf, {
      head: [[...heads]],
      body: rows.map(r => [...r]),
      startY: this.y + 1,
      margin: { left: PAGE.margin, right: PAGE.margin, top: PAGE.margin, bottom: PAGE.margin + 6 },
      theme: 'plain',
      styles: {
        font: FONT,
        fontSize: 8.5,
        cellPadding: { top: 0.9, bottom: 0.9, left: 0, right: 2.5 },
        textColor: 0,
        lineColor: 170,
        lineWidth: { bottom: 0.1 },
        overflow: 'linebreak',
      },
      headStyles: { fontStyle: 'bold', lineColor: 0, lineWidth: { bottom: 0.3 } },
      columnStyles,
      didParseCell: ({ section, column, cell }) => {
        if (section === 'head' && right.includes(column.index)) cell.styles.halign = 'right';
      },
      rowPageBreak: 'avoid',
    });
    const last = (this.pdf as unknown as { lastAutoTable?: { finalY: number } }).lastAutoTable;
    this.y = (last?.finalY ?? this.y) + 3;
  }

  /** Closed outlines with one line, holes as they are wound; white inside where asked for. */
  outline(shapes: readonly Polygon[], width: number, dash: readonly number[] = [], filled = false): void {
    if (shapes.length === 0) return;
    this.pdf.setDrawColor(0);
    this.pdf.setLineWidth(width);
    this.pdf.setLineDashPattern([...dash], 0);
    this.pdf.setFillColor('#ffffff');
    for (const s of shapes) {
      const [a, ...rest] = s;
      if (!a) continue;
      let from = a;
      const steps = rest.map((p): [number, number] => {
        const d: [number, number] = [p[0] - from[0], p[1] - from[1]];
        from = p;
        return d;
      });
      this.pdf.lines(steps, a[0], a[1], [1, 1], filled ? 'FD' : 'S', true);
    }
    this.pdf.setLineDashPattern([], 0);
  }

  line(a: Vec2, b: Vec2, width: number, dash: readonly number[] = []): void {
    this.pdf.setDrawColor(0);
    this.pdf.setLineWidth(width);
    this.pdf.setLineDashPattern([...dash], 0);
    this.pdf.line(a[0], a[1], b[0], b[1]);
    this.pdf.setLineDashPattern([], 0);
  }

  /** A word at a place, its middle there, upright along a steep line where asked for; on white, so that no line crosses it. */
  label(text: string, at: Vec2, size: number, bold = false, upright = false): void {
    this.pdf.setFont(FONT, bold ? 'bold' : 'normal');
    this.pdf.setFontSize(size);
    const w = this.pdf.getTextWidth(text);
    const h = size * 0.3528;
    this.pdf.setFillColor('#ffffff');
    const [bw, bh] = upright ? [h + 0.4, w + 0.8] : [w + 0.8, h + 0.4];
    this.pdf.rect(at[0] - bw / 2, at[1] - bh / 2, bw, bh, 'F');
    this.pdf.setTextColor(0);
    if (upright) this.pdf.text(text, at[0] + h * 0.36, at[1] + w / 2, { angle: 90 });
    else this.pdf.text(text, at[0] - w / 2, at[1] + h * 0.36);
    this.pdf.setFont(FONT, 'normal');
  }

  dot(at: Vec2, radius: number, filled: boolean): void {
    this.pdf.setDrawColor(0);
    this.pdf.setLineWidth(0.25);
    this.pdf.setFillColor(filled ? '#000000' : '#ffffff');
    this.pdf.circle(at[0], at[1], radius, 'FD');
  }

  /** Writes the foot and the number on every page and gives the file. */
  finish(): Uint8Array {
    const pages = this.pdf.getNumberOfPages();
    for (let i = 1; i <= pages; i++) {
      this.pdf.setPage(i);
      this.pdf.setFont(FONT, 'normal');
      this.pdf.setFontSize(8);
      this.pdf.setTextColor(GRAY);
      const y = PAGE.height - PAGE.margin + 3;
      this.pdf.text(this.#foot, PAGE.margin, y);
      this.pdf.text(`${i} of ${pages}`, PAGE.width - PAGE.margin, y, { align: 'right' });
    }
    return new Uint8Array(this.pdf.output('arraybuffer'));
  }
}
