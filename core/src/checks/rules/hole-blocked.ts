import type { Rule } from '../finding';

export const holeBlocked: Rule = {
  id: 'hole-blocked',
  why: 'Another part already uses the hole.',
  find: facts =>
    facts.joints.flatMap(j =>
      j.mount?.condition === 'blocked'
        ? [
            {
              severity: 'stop' as const,
              where: 'bolt' as const,
              about: [j.id],
              text: `bolt ${j.id}: the hole is blocked.`,
              remedy: 'Share it with a longer bolt, or use another hole.',
            },
          ]
        : [],
    ),
};
