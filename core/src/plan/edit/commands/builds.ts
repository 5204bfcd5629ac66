import { err, ok } from '../../../units';
import type { Build, PlanDocument, SheetChoice } from '../../plan';
import { redrawnFor, sheetsSet } from '../../restack';
import { buildNameIn } from '../../select';
import { freshId, inPlan } from '../change';
import { command } from '../command';

/** A plan compares so many builds at the most. */
export const MOST_BUILDS = 8;

/** A name no other build has, since a build is told by its name alone: the second copy is `steel, copy 2`. */
function freeName(wanted: string, builds: readonly Build[]): string {
  let name = wanted;
  for (let n = 2; builds.some(b => b.name === name); n++) name = `${wanted} ${n}`;
  return name;
}

type OfBuild<A = unknown> = A & { readonly build: string };
const named = ({ plan }: PlanDocument, { build }: OfBuild): string => buildNameIn(plan, build);

export const activateBuild = command<OfBuild>({
  id: 'build.activate',
  label: (doc, a) => `switch to ${named(doc, a)}`,
  run: (doc, { build }) =>
    doc.plan.activeBuild === build || !doc.plan.builds.some(b => b.id === build)
      ? doc
      : inPlan(doc, { activeBuild: build }),
});

/** A copy, which is then the active build. */
export const copyBuild = command<OfBuild>({
  id: 'build.copy',
  label: (doc, a) => `duplicate ${named(doc, a)}`,
  run: (doc, { build }) => {
    const from = doc.plan.builds.find(b => b.id === build);
    if (!from) return err('there is no such build');
    if (doc.plan.builds.length >= MOST_BUILDS) return err(`A plan has ${MOST_BUILDS} builds at the most.`);
    const { builds } = doc.plan;
    const copy = { ...from, id: freshId('build', builds), name: freeName(`${from.name}, copy`, builds) };
    return ok(inPlan(doc, { builds: [...doc.plan.builds, copy], activeBuild: copy.id }));
  },
});

export const renameBuild = command<OfBuild<{ readonly name: string }>>({
  id: 'build.rename',
  label: (doc, a) => `rename ${named(doc, a)}`,
  run: (doc, { build, name }) =>
    doc.plan.builds.some(b => b.id !== build && b.name === name)
      ? err(`Another build is called “${name}” already.`)
      : ok(inPlan(doc, { builds: doc.plan.builds.map(b => (b.id === build ? { ...b, name } : b)) })),
});

export const noteBuild = command<OfBuild<{ readonly note: string }>>({
  id: 'build.note',
  label: (doc, a) => `note on ${named(doc, a)}`,
  run: (doc, { build, note }) =>
    inPlan(doc, { builds: doc.plan.builds.map(b => (b.id === build ? { ...b, note } : b)) }),
});

/**
 * Builds in another order, which is that of every table and of the hand. Plates are drawn for the first build: where another comes first,
 * as they hang in that one. An order that leaves a build out, or names one twice, changes nothing.
 */
export const orderBuilds = command<{ readonly order: readonly string[] }>({
  id: 'build.order',
  label: () => 'reorder the builds',
  run: (doc, { order }) => {
    const { builds } = doc.plan;
    const next = order.map(id => builds.find(b => b.id === id)).filter(b => b !== undefined);
    if (next.length !== builds.length || new Set(next).size !== builds.length) return doc;
    if (next.every((b, i) => b === builds[i])) return doc;
    const first = next[0];
    const drawn = first && first !== builds[0] ? redrawnFor(doc, first) : doc;
    return inPlan(drawn, { builds: next });
  },
});

/** The last build stays. */
export const removeBuild = command<OfBuild>({
  id: 'build.remove',
  label: (doc, a) => `delete ${named(doc, a)}`,
  run: (doc, { build }) => {
    const builds = doc.plan.builds.filter(b => b.id !== build);
    const first = builds[0];
    if (!first || builds.length === doc.plan.builds.length) return doc;
    // plates are drawn for the first build: as they hang in the one that takes its place
    const drawn = doc.plan.builds[0]?.id === build ? redrawnFor(doc, first) : doc;
    return inPlan(drawn, {
      builds,
      activeBuild: doc.plan.activeBuild === build ? first.id : doc.plan.activeBuild,
    });
  },
});

/** Other sheets for some plates of a build. */
export const setSheets = command<OfBuild<{ readonly sheets: Readonly<Record<string, SheetChoice>> }>>({
  id: 'build.sheets',
  label: (doc, { build, sheets }) => {
    const ids = Object.keys(sheets);
    const plate = ids.length === 1 && doc.plan.panels.find(p => p.id === ids[0]);
    return `change the sheet of ${plate ? `plate ${plate.mark}` : `${ids.length} plates`} of ${buildNameIn(doc.plan, build)}`;
  },
  run: (doc, { build, sheets }) => sheetsSet(doc, build, sheets),
});

/** What a fabricator asks for a build, dollars; none where the price is nought. */
export const setOffer = command<OfBuild<{ readonly price: number; readonly source: string }>>({
  id: 'build.offer',
  label: (doc, a) => `enter an offer for ${named(doc, a)}`,
  run: (doc, { build, price, source }) =>
    inPlan(doc, {
      builds: doc.plan.builds.map(b => {
        const { offer: _, ...rest } = b;
        return b.id !== build ? b : price === 0 ? rest : { ...rest, offer: { price, source } };
      }),
    }),
});
