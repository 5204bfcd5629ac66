import { demo } from '@plate-fold/demo';
// What a torque makes of a bolt and its sheet, against published figures.
import { describe, expect, it } from 'vitest';
import { check, mended } from '../checks';
import { gatherFacts } from '../derive';
import { withJoint } from '../plan';
import {
  figureSources,
  jointCapacity,
  nutFactor,
  pressures,
  prevailingTorque,
  threadNamed,
  washerFor,
} from './index';

const thread = (name: string) => {
  const t = threadNamed(name);
  if (!t.ok) throw new Error(t.fault);
  return t.value;
};
/** One joint of Bramble changed, and all that follows. */
function changed(id: string, change: Parameters<typeof withJoint>[2], build?: string) {
  const facts = gatherFacts(withJoint(demo('bramble'), id, change), build);
  return { facts, j: facts.joints.find(x => x.id === id)! };
}

describe('friction', () => {
  it('is Shigley’s by finish and lubricant (Table 8-15), stainless under anti-seize a row of its own', () => {
    expect(nutFactor('plain', 'dry')).toBe(0.3);
    expect(nutFactor('zinc', 'dry')).toBe(0.2);
    expect(nutFactor('plain', 'oil')).toBe(0.18);
    expect(nutFactor('zinc', 'anti-seize')).toBe(0.12);
    expect(nutFactor('stainless', 'anti-seize')).toBe(0.15);
  });
  it('is more only where a serrated face is the one that turns', () => {
    // an M12 through the frame: as a bolt its head is turned, as a carriage bolt the serrated nut
    const held = changed('j10', j => ({ ...j, nut: 'flange-serrated' })).j;
    const turned = changed('j10', j => ({
      ...j,
      nut: 'flange-serrated',
      fastener: { ...j.fastener, head: 'carriage' },
    })).j;
    expect(turned.kFactor / held.kFactor).toBeCloseTo(1.15, 9);
  });
  it('of a lock nut comes on top (ISO 2320, class 8), and no clamp comes of it', () => {
    expect(prevailingTorque('nylon-lock', thread('M8'))).toBe(6);
    expect(prevailingTorque('all-metal-lock', thread('M12'))).toBe(15.5);
    expect(prevailingTorque('hex', thread('M8'))).toBe(0);
    const plain = changed('j10', j => ({ ...j, nut: 'hex' })).j;
    for (const nut of ['nylon-lock', 'all-metal-lock'] as const) {
      const lock = changed('j10', j => ({ ...j, nut })).j;
      expect(lock.torqueNm - plain.torqueNm).toBeCloseTo(15.5 / 2, 9);
      expect(lock.preloadN).toBeCloseTo(plain.preloadN, 6);
      // the band holds the nut that locks least and the one that locks most
      expect(lock.torqueBand[0]).toBeCloseTo(plain.torqueBand[0], 9);
      expect(lock.torqueBand[1] - plain.torqueBand[1]).toBeCloseTo(15.5, 9);
      const entered = changed('j10', j => ({ ...j, nut, torque: 50 })).j;
      expect(entered.preloadN).toBeCloseTo(((50 - 7.75) * 1000) / (entered.kFactor * 12), 6);
    }
  });
});

describe('what is bought', () => {
  it('has class and finish: nuts of the bolt’s class (ISO 898-2), washers as hard as it wants (ISO 7089)', () => {
    const parts = (grade: '8.8' | '10.9' | 'A2-70', finish: 'zinc' | 'stainless'): string =>
      changed('j10', j => ({
        ...j,
        nut: 'hex',
        washers: ['flat'],
        fastener: { ...j.fastener, class: grade, finish },
      }))
        .j.parts.map(p => p.name)
        .join('; ');
    expect(parts('8.8', 'zinc')).toContain('flat washer M12, 200 HV, zinc; hex nut M12x1.75, class 8, zinc');
    expect(parts('10.9', 'zinc')).toContain(
      'flat washer M12, 300 HV, zinc; hex nut M12x1.75, class 10, zinc',
    );
    expect(parts('A2-70', 'stainless')).toContain('flat washer M12, A2; hex nut M12x1.75, A2-70');
  });
});

describe('a bolt against its sheet', () => {
  it('is borne by steel, aluminum and plastic each by its own rule', () => {
    const hole = (name: 'bramble' | 'wren', build: string, id: string) => {
      const facts = gatherFacts(demo(name), build);
      const j = facts.joints.find(x => x.id === id)!;
      const p = facts.panels.find(x => x.panel.id === j.joint.panels[0])!;
      const e = jointCapacity(j, facts.panels).elements.find(x => x.what.endsWith('hole stretched'))!;
      return { e, dt: j.thread.d * p.sheet.thickness };
    };
    const steel = hole('bramble', 'A', 'j01');
    expect(steel.e.force).toBeCloseTo(2.4 * steel.dt * 365, 6);
    expect(steel.e.source).toContain('AISC 360-16 eq. J3-6a');
    const aluminum = hole('bramble', 'B', 'j01');
    expect(aluminum.e.force).toBeCloseTo(2 * aluminum.dt * 215, 6);
    expect(aluminum.e.source).toContain('Aluminum Design Manual 2015, J.3.6.1');
    // the hole stays stretched where its edge has yielded
    const plastic = hole('wren', 'A', 'j-1');
    expect(plastic.e.force).toBeCloseTo(plastic.dt * 21, 6);
  });
  it('presses it over the ring that head or washer leaves round the hole', () => {
    // M10 8.8: 0.75 × 580 MPa × 58 mm² on a flange head of 22.3 mm over a hole of 11 mm
    const flange = changed('j01', x => ({
      ...x,
      washers: [],
      spacer: 0,
      fastener: { ...x.fastener, head: 'flange', class: '8.8' },
    }));
    const [under] = pressures(flange.j, flange.facts.panels);
    expect(under).toMatchObject({ by: 'head', limit: 250 });
    expect(under!.mpa).toBeCloseTo((0.75 * 580 * 58) / ((Math.PI / 4) * (22.3 ** 2 - 11 ** 2)), 1);
    // a washer carries 1.6 of its thickness further out than the head (VDI 2230, from memory): 16 + 3.2 of its 20 mm
    const hex = changed('j01', x => ({ ...x, washers: ['flat'], fastener: { ...x.fastener, head: 'hex' } }));
    const [washer] = pressures(hex.j, hex.facts.panels);
    expect(washer!.mpa).toBeCloseTo(hex.j.preloadN / ((Math.PI / 4) * (19.2 ** 2 - 11 ** 2)), 1);
  });
  it('that it presses too hard is told, and mended by the washer that is wide enough', () => {
    const soft = changed(
      'j01',
      x => ({ ...x, washers: [], fastener: { ...x.fastener, head: 'hex', class: '8.8' } }),
      'B',
    );
    const p = soft.facts.panels.find(x => x.panel.id === soft.j.joint.panels[0])!;
    expect(p.material.family).toBe('aluminum');
    const found = check(soft.facts).find(f => f.rule === 'pressure' && f.about.includes('j01'))!;
    expect(found.severity).toBe('fix');
    const kind = washerFor(soft.j, p)!;
    expect(found.remedy).toContain(kind);
    const after = gatherFacts(mended(soft.facts.document, found.mend!), 'B');
    expect(check(after).some(f => f.rule === 'pressure' && f.about.includes('j01'))).toBe(false);
    expect(after.joints.find(j => j.id === 'j01')!.joint.washers[0]).toBe(kind);
  });
});

describe('the source of a figure', () => {
  it('is named for every part of every demo joint, by its standard or as common practice', () => {
    for (const name of ['bramble', 'heron', 'pebble', 'wren'] as const) {
      const facts = gatherFacts(demo(name));
      for (const j of facts.joints) {
        const sources = figureSources(j, facts.panels);
        expect(sources.length).toBe(
          3 +
            (j.nut ? 1 : 0) +
            new Set(j.joint.panels.map(p => facts.panels.find(x => x.panel.id === p)?.material.id)).size,
        );
        for (const s of sources)
          expect(s.source, s.what).toMatch(/ISO|ASME|SAE|DIN|ASTM|Handbook|practice|typical/);
      }
    }
  });
});
