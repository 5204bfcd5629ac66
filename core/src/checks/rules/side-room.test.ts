import { demo } from '@plate-fold/demo';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { roomBefore } from '../../cover';
import { gatherFacts } from '../../derive';
import type { PlanDocument } from '../../plan';
import type { Component } from '../../rig';
import { check } from '../index';

const wren = demo('wren');
/** Wren with a box so far inboard of the bolt that looks inboard out of its left rail (j-17 at y = −272), mm. */
function boxed(off: number): PlanDocument {
  const at = wren.rig.mounts.find(m => m.id === 'side-left')?.at ?? [0, 0, 0];
  const box: Component = {
    id: 'box',
    kind: 'battery',
    name: 'tool box',
    footprint: [
      [at[0] - 60, at[1] + off],
      [at[0] + 60, at[1] + off],
      [at[0] + 60, at[1] + off + 80],
      [at[0] - 60, at[1] + off + 80],
    ],
    zBottom: at[2] - 30,
    zTop: at[2] + 100,
    protect: false,
    keepOut: 0,
  };
  return { ...wren, rig: { ...wren.rig, components: [...wren.rig.components, box] } };
}
const said = (doc: PlanDocument) =>
  check(gatherFacts(doc)).filter(f => f.rule === 'side-room' && f.about.includes('box'));

describe('room before a head that looks to a side', () => {
  it('is enough in the demo, and where a part stands a hand away', () => {
    expect(check(gatherFacts(wren)).filter(f => f.rule === 'side-room')).toEqual([]);
    expect(said(boxed(120))).toEqual([]);
  });
  it('too little for a socket is a note with the wrench that does it; for any wrench it is to be mended', () => {
    const [note] = said(boxed(60));
    expect(note?.severity).toBe('note');
    expect(note?.text).toMatch(
      /^Bolt j-17 looks to a side and has .* before its head, up to tool box; a socket wants/,
    );
    expect(note?.remedy).toContain('crowfoot');
    expect(said(boxed(22))[0]?.severity).toBe('fix');
  });
  it('grows with what is left, and is found whichever way the head looks', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }),
        fc.double({ min: 12, max: 100, noNaN: true }),
        (turn, off) => {
          const out = [Math.cos(turn), Math.sin(turn), 0] as const;
          const across = [-out[1], out[0]] as const;
          const corner = (a: number, b: number): [number, number] => [
            out[0] * a + across[0] * b,
            out[1] * a + across[1] * b,
          ];
          const wall = {
            id: 'wall',
            kind: 'rail' as const,
            footprint: [corner(off, -80), corner(off + 30, -80), corner(off + 30, 80), corner(off, 80)],
            zBottom: -50,
            zTop: 50,
            wall: 3,
          };
          const room = roomBefore({ members: [wall], components: [] }, [], [0, 0, 0], out, 12, 70);
          if (off > 70.5) expect(room).toBeUndefined();
          else if (off < 69.5) {
            expect(room?.with).toEqual({ kind: 'member', id: 'wall' });
            // in steps of five, and what touches by half a millimeter is free
            expect(room?.mm).toBeLessThanOrEqual(off + 0.5);
            expect(room?.mm).toBeGreaterThan(off - 6);
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});
