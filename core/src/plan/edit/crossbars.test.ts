import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import {
  barEnd,
  barFace,
  checkDocument,
  crossbarAdded,
  crossbarEnded,
  crossbarRemoved,
  crossbarSet,
  type PlanDocument,
  presentOf,
} from '../index';

const valid = (doc: PlanDocument): PlanDocument => {
  const read = checkDocument(structuredClone(doc));
  expect(read.ok ? [] : read.faults).toEqual([]);
  return doc;
};
const end = (doc: PlanDocument, x: number, y: number) => {
  const r = barEnd(doc, presentOf(doc), [x, y], 20);
  if (!r.ok) throw new Error(r.fault);
  return r.value;
};
const across = (doc = demo('bramble')) => {
  const r = crossbarAdded(doc, end(doc, 1302, -436), end(doc, 1600, 430));
  if (!r.ok) throw new Error(r.fault);
  return r.value;
};

describe('a crossbar', () => {
  it('ends at a hole nearby, or at a new one in the member over the place, and nowhere else', () => {
    const doc = demo('bramble');
    expect(end(doc, 1302, -436)).toMatchObject({ fresh: false, hole: { id: 'rail-l6' } });
    expect(end(doc, 1600, 430)).toMatchObject({
      fresh: true,
      hole: { member: 'rail-right', at: [1600, 430, 430] },
    });
    const none = barEnd(doc, presentOf(doc), [1900, 0], 20);
    expect(none.ok ? '' : none.fault).toContain('there is none there');
  });
  it('between two members without holes drills both, each under a name of its own', () => {
    const doc = demo('bramble');
    const r = crossbarAdded(doc, end(doc, 1600, -430), end(doc, 1600, 430));
    if (!r.ok) throw new Error(r.fault);
    valid(r.value.document);
    const id = r.value.id;
    expect(r.value.document.plan.holes?.map(h => [h.id, h.member])).toEqual([
      [`${id}-end-1`, 'rail-left'],
      [`${id}-end-2`, 'rail-right'],
    ]);
    const near = crossbarAdded(doc, end(doc, 1600, -430), end(doc, 1640, -430));
    expect(near.ok ? '' : near.fault).toContain('must be apart');
  });
  it('is bolted up at both ends, its upper face against the frame, and is a sound plan', () => {
    const { document, id } = across();
    valid(document);
    const bar = document.plan.crossbars.find(c => c.id === id);
    expect(bar && barFace(bar, bar.from, 1)).toBeCloseTo(430, 9);
    expect(document.plan.holes?.map(h => h.id)).toEqual([`${id}-end-2`]);
    const own = document.plan.joints.filter(j => j.mount !== undefined && bar?.mounts.includes(j.mount));
    expect(own.map(j => [j.fastener.head, j.spacer, j.panels.length])).toEqual([
      ['countersunk', 0, 0],
      ['countersunk', 0, 0],
    ]);
    expect(presentOf(document).members.at(-1)).toMatchObject({ id, zTop: 430 });
  });
  it('lowered, its bolts get spacers; made higher, it stays against what it hangs from', () => {
    const { document, id } = across();
    const bar = document.plan.crossbars.at(-1);
    if (!bar) throw new Error('no bar');
    const low = crossbarSet(document, id, {
      from: [bar.from[0], bar.from[1], bar.from[2] - 12],
      to: [bar.to[0], bar.to[1], bar.to[2] - 12],
    });
    const spacers = (d: PlanDocument) =>
      d.plan.joints.filter(j => j.mount !== undefined && bar.mounts.includes(j.mount)).map(j => j.spacer);
    expect(spacers(low)).toEqual([12, 12]);
    const high = crossbarSet(document, id, { section: { width: 50.8, height: 50.8, wall: 3.175 } });
    const now = high.plan.crossbars.at(-1);
    expect(now && barFace(now, now.from, 1)).toBeCloseTo(430, 9);
    expect(spacers(high)).toEqual([0, 0]);
    valid(high);
  });
  it('moved at one end takes the other hole, and its drilled one goes', () => {
    const { document, id } = across();
    const r = crossbarEnded(document, id, 1, end(document, 1300, 435));
    if (!r.ok) throw new Error(r.fault);
    valid(r.value);
    expect(r.value.plan.crossbars.find(c => c.id === id)?.mounts).toEqual(['rail-l6', 'rail-r6']);
    expect(r.value.plan.holes).toBeUndefined();
  });
  it('taken out leaves the plan as it was', () => {
    const doc = demo('bramble');
    const { document, id } = across(doc);
    expect(crossbarRemoved(document, id)).toEqual(doc);
  });
});
