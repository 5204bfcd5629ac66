import { buildBook, type Side } from '@plate-fold/core/book';
import { gatherFacts } from '@plate-fold/core/derive';
import type { PlanDocument } from '@plate-fold/core/plan';
import type { UnitSystem } from '@plate-fold/core/units';

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

self.onmessage = async ({ data }: MessageEvent<BookAsked>) => {
  try {
    const [plain, bold] = await Promise.all([bytes(data.fonts.plain), bytes(data.fonts.bold)]);
    const facts = gatherFacts(data.document, data.build);
    const { units, side, shelf } = data;
    self.postMessage({
      pdf: buildBook(facts, { fonts: { plain, bold }, units, side, shelf, at: Date.now() }),
    });
  } catch (e) {
    self.postMessage({ fault: e instanceof Error ? e.message : String(e) });
  }
};
