import { gapsAtRest } from '../../cover';
import type { Component } from '../../rig';
import { memberName } from '../../rig';
import { partName, plateName, type Rule, type Unsigned } from '../finding';

/** What moves is said to be too near at less than this where nothing else is told, mm: common practice, no source. */
const ROOM = 10;
const WITH = { 'front-axle': 'the front axle', 'rear-axle': 'the rear axle', engine: 'the engine' } as const;

export const carrier: Rule = {
  id: 'carrier',
  why: 'A plate on an axle rises and falls with it: it may hit what is above, or tear off the frame.',
  find: (facts, words) => {
    const out: Unsigned[] = [];
    for (const c of facts.carried.values()) {
      const plate = plateName(facts, c.panel);
      if (c.against.length > 0) {
        out.push({
          severity: 'stop',
          where: 'cover',
          about: [c.panel],
          text: `${plate} is bolted to the ${c.on.map(m => memberName(facts.rig, m)).join(', ')}, which moves with ${WITH[c.travel.with]}, and to the ${c.against.map(m => memberName(facts.rig, m)).join(', ')}, which does not.`,
          remedy: 'Bolt it to one of them alone.',
        });
        continue;
      }
      for (const g of facts.gaps) {
        const part = facts.rig.components.find(x => x.id === g.component);
        if (g.panel !== c.panel || !part || part.moves) continue;
        const left = g.gapMm - c.travel.bump;
        const room = Math.min(part.keepOut, ROOM);
        if (left >= room) continue;
        out.push({
          severity: left < 0 ? 'stop' : 'fix',
          where: 'cover',
          about: [c.panel, g.component],
          text:
            left < 0
              ? `${plate} rises ${words.length(c.travel.bump)} with ${WITH[c.travel.with]} and hits ${partName(facts, g.component)}: ${words.length(-left)} too far.`
              : `${plate} rises ${words.length(c.travel.bump)} with ${WITH[c.travel.with]} and leaves ${words.length(left)} to ${partName(facts, g.component)}.`,
          remedy: 'Lower it on the axle, cut it back there, or limit the travel.',
        });
      }
    }
    // what hangs on the frame and lies under a member that falls with its axle
    const falling = facts.rig.members.flatMap((m): readonly Component[] =>
      m.moves && m.moves.droop > 0
        ? [
            {
              id: m.id,
              kind: 'control-arm',
              name: memberName(facts.rig, m.id),
              footprint: m.footprint,
              zBottom: m.zBottom - m.moves.droop,
              zTop: m.zTop,
              protect: false,
              keepOut: ROOM,
            },
          ]
        : [],
    );
    const sprung = facts.plates.filter(p => !facts.carried.has(p.panel.id));
    for (const g of falling.length > 0 ? gapsAtRest(falling, sprung) : [])
      if (g.gapMm < ROOM)
        out.push({
          severity: g.gapMm < 0 ? 'stop' : 'fix',
          where: 'cover',
          about: [g.panel],
          text: `The ${falling.find(f => f.id === g.component)?.name} ${g.gapMm < 0 ? `comes down into ${plateName(facts, g.panel).replace(/^Plate/, 'plate')} at full droop, ${words.length(-g.gapMm)} too far` : `comes within ${words.length(g.gapMm)} of ${plateName(facts, g.panel).replace(/^Plate/, 'plate')} at full droop`}.`,
          remedy: 'Lower the plate, or give it an opening there.',
        });
    return out;
  },
};
