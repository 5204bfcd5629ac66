import { solidClashes } from '../../cover';
import { memberName } from '../../rig';
import { partName, plateName, plateWord, type Rule, type Unsigned } from '../finding';

export const solid: Rule = {
  id: 'solid',
  why: 'Parts that overlap cannot be installed.',
  find: (facts, words) =>
    solidClashes(facts.rig, facts.panels).flatMap((c): readonly Unsigned[] => {
      const { kind, id } = c.with;
      const told =
        kind === 'part' && facts.gaps.some(g => g.panel === c.panel && g.component === id && g.gapMm < 0);
      // a plate inside the member that it is bolted to is told at its bolts
      const seated =
        (kind === 'member' || kind === 'plate') &&
        facts.joints.some(j =>
          (facts.seats.get(j.id)?.gaps ?? []).some(
            g =>
              g.mm < -0.5 &&
              ((g.plate === c.panel && g.against.id === id) || (g.plate === id && g.against.id === c.panel)),
          ),
        );
      if (told || seated) return [];
      const what =
        kind === 'plate'
          ? plateWord(facts, id)
          : kind === 'member'
            ? `the ${memberName(facts.rig, id)}`.replace('the the', 'the')
            : kind === 'part'
              ? partName(facts, id)
              : 'the ground';
      return [
        {
          severity: 'stop',
          where: 'cover',
          about: kind === 'ground' ? [c.panel] : [c.panel, id],
          text: `${plateName(facts, c.panel)} runs ${words.fine(c.depthMm)} into ${what}.`,
          remedy: kind === 'ground' ? 'Raise the plate.' : 'Move one of them, or cut the plate back there.',
        },
      ];
    }),
};
