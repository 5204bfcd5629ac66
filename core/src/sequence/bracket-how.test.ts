import { demo } from '@plate-fold/demo';
import { describe, expect, it } from 'vitest';
import { recessMm } from '../bolt';
import { gatherFacts } from '../derive';
import { fourZ, twoL } from '../testing/hung-plates';
import { coveredLater } from './bracket-how';
import { installationOf, nutReaches } from './index';

describe('a bracket in the run', () => {
  it('is told how it sits: on which face, and where its other hole comes', () => {
    const { steps } = installationOf(gatherFacts(twoL(demo('bramble'))), 'inch');
    const hows = steps.filter(s => /^Hold bracket/.test(s.title)).map(s => s.hows?.[0]);
    // 60 mm over the plate and 50 mm beside it, less the sheet
    expect(hows).toHaveLength(2);
    for (const h of hows)
      expect(h).toMatch(
        /^On the inner side of the .*; the hole with the thread for the plate comes 2 3\/16 in lower, 1 15\/16 in inboard\.$/,
      );
    const z = installationOf(gatherFacts(fourZ(demo('bramble'))), 'metric').steps;
    expect(z.find(s => /^Hold bracket/.test(s.title))?.hows?.[0]).toMatch(
      /^On the underside of the .* comes 75 mm lower, 75 mm (rear|for)ward\.$/,
    );
  });

  it('has its bolt made fast before its plate covers it, and is not turned again; a bolt that stays in reach waits', () => {
    const facts = gatherFacts(twoL(demo('bramble')));
    const { steps, cycle } = installationOf(facts);
    expect(cycle).toEqual([]);
    // what slides into place is the plate
    expect(steps.find(x => x.stage === 'home')?.title).toMatch(/^Slide plate A into place/);
    const at = (id: RegExp): number => steps.findIndex(s => id.test(s.id));
    const raise = at(/^hang-plate-a/);
    for (const j of facts.joints.filter(x => x.mount)) {
      expect(coveredLater(j, facts.panels)).toBe(true);
      const turned = steps.filter(s => s.stage === 'tighten' && s.joints.includes(j.id));
      expect(turned).toHaveLength(1);
      expect(turned[0]?.torques?.[j.id]).toBe(j.torqueNm);
      expect(steps.indexOf(turned[0]!)).toBeLessThan(raise);
    }
    // beside its plate a head stays in reach: it is tightened with the rest
    const free = gatherFacts(fourZ(demo('bramble')));
    for (const j of free.joints.filter(x => x.mount)) expect(coveredLater(j, free.panels)).toBe(false);
    expect(installationOf(free).steps.some(s => /^fast-/.test(s.id))).toBe(false);
  });

  it('is reached through an opening right under its head', () => {
    const doc = twoL(demo('bramble'));
    const [j] = gatherFacts(doc).joints.filter(x => x.mount);
    const y = Math.sign(j!.at[1]) * 185;
    const open = {
      ...doc,
      plan: {
        ...doc.plan,
        panels: doc.plan.panels.map(p =>
          p.id === 'plate-a'
            ? {
                ...p,
                openings: [{ id: 'o', kind: 'door' as const, at: [0, y] as const, shape: { circle: 30 } }],
              }
            : p,
        ),
      },
    };
    const facts = gatherFacts(open);
    expect(coveredLater(j!, facts.panels)).toBe(false);
  });
});

describe('a bolt that looks sideways', () => {
  it('is not judged from below: no extension for the plate under it, and its nut is reached past its member', () => {
    const facts = gatherFacts(twoL(demo('bramble')));
    const [j] = facts.joints.filter(x => x.mount);
    expect(recessMm(j!, facts)).toBe(0);
    // the same hole looking down would lie deep behind the plate
    const { normal: _, ...mount } = j!.mount!;
    expect(recessMm({ ...j!, mount }, facts)).toBeGreaterThan(20);
    const open = { ...j!, mount: { ...j!.mount!, nutReach: 'open' as const } };
    expect(nutReaches(facts.document, facts.panels, [open]).get(j!.id)?.until).toBe('always');
  });
});
