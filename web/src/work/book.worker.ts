import { buildBook, type Paper, type Side, templatePdf } from '@plate-fold/core/book';
import { gatherFacts } from '@plate-fold/core/derive';
import type { PlanDocument } from '@plate-fold/core/plan';
import type { UnitSystem } from '@plate-fold/core/units';
import { expose } from 'comlink';

export interface BookAsked {
  readonly document: PlanDocument;
  readonly build: string;
  readonly units: UnitSystem;
  readonly side: Side;
  readonly shelf: Readonly<Record<string, number>>;
  /** addresses of the fonts, which ship with the application */
  readonly fonts: { readonly plain: string; readonly bold: string };
}

const bytes = async (url: string): Promise<Uint8Array> => {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error('a font of the book could not be read');
  return new Uint8Array(await answer.arrayBuffer());
};

export interface TemplateAsked extends Pick<BookAsked, 'document' | 'build' | 'fonts'> {
  readonly panels: readonly string[];
  readonly paper: Paper;
}

const worker = {
  async template(asked: TemplateAsked): Promise<Uint8Array<ArrayBuffer>> {
    const { document, build, panels, paper } = asked;
    const [plain, bold] = await Promise.all([bytes(asked.fonts.plain), bytes(asked.fonts.bold)]);
    return new Uint8Array(
      templatePdf(gatherFacts(document, build), { panels, paper, fonts: { plain, bold } }),
    );
  },
  async book({ document, build, fonts, units, side, shelf }: BookAsked): Promise<Uint8Array<ArrayBuffer>> {
    const [plain, bold] = await Promise.all([bytes(fonts.plain), bytes(fonts.bold)]);
    const facts = gatherFacts(document, build);
    const made = buildBook(facts, { fonts: { plain, bold }, units, side, shelf, at: Date.now() });
    return new Uint8Array(made);
  },
};
export type BookWorker = typeof worker;
expose(worker);
