import { readFileSync } from 'node:fs';
import { type PlanDocument, readDocument, type Tick } from '@plate-fold/core';
import { describe, expect, it } from 'vitest';
import { offersFrom } from './usual';

const heron = (): PlanDocument => {
  const r = readDocument(
    readFileSync(new URL('../../../../demo/heron.platefold.json', import.meta.url), 'utf8'),
  );
  if (!r.ok) throw new Error(r.faults[0]?.fault);
  return r.document;
};
const off = (note: string, jointId: string | null = 'j-3'): Tick => ({
  id: note,
  stepId: 's',
  jointId,
  kind: 'deviation',
  note,
  at: 1,
  device: 'd',
});
const of = (doc: PlanDocument, ...ticks: Tick[]) => offersFrom(doc, ticks, '2026-11-26');

describe('what a run offers the plan', () => {
  it('sets the hole of a torn thread to stripped, whoever told of it: hands or the wrench', () => {
    const doc = heron();
    const mount = doc.plan.joints.find(j => j.id === 'j-3')?.mount;
    for (const note of [
      'Cross-threaded',
      'Turns without getting tighter',
      'It keeps turning: the nut is stripping.',
    ]) {
      const [offer] = of(doc, off(note));
      expect(offer?.said).toContain(mount);
      const next = offer!.change(doc);
      expect(next.rig.mounts.find(m => m.id === mount)?.condition).toBe('stripped');
      // and is not offered again
      expect(of(next, off(note))).toEqual([]);
    }
  });
  it('finds the bolt by the step where a step is about one', () => {
    const [offer] = of(heron(), { ...off('Other bolt used', null), stepId: 'repair-j-3' });
    expect(offer?.off).toBe('j-3: Other bolt used');
  });
  it('locks a joint whose bolt was changed, and writes the rest into the notes once', () => {
    const doc = heron();
    const [lock, note] = of(doc, off('Other bolt used'), off('Touches something above', null));
    expect(lock!.change(doc).plan.joints.find(j => j.id === 'j-3')?.lock).toBe(true);
    const noted = note!.change(doc);
    expect(noted.plan.notes).toContain('2026-11-26, Touches something above');
    expect(of(noted, off('Touches something above', null))).toEqual([]);
    expect(of(doc, { ...off('x'), kind: 'done' }, { ...off('y'), note: null })).toEqual([]);
  });
});
