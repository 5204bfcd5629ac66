import type { FactoryPart } from '../rig';
import { headSize } from './heads';
import { threadNamed } from './thread';

/** How a factory fastener comes off, and what takes its place if the part goes back on. */
export interface FactoryRemoval {
  readonly head: string;
  readonly thread: string;
  readonly count: number;
  readonly how: string;
  readonly tool: string;
  /** metal flies while it is taken out */
  readonly drilled: boolean;
  /** it can be used again */
  readonly reusable: boolean;
  readonly replacement: string;
}

interface Kind {
  readonly words: readonly string[];
  readonly how: string;
  readonly tool: string;
  readonly drilled?: true;
  readonly reusable: boolean;
  readonly replacement: string;
}

/** What the factory holds its covers with: common practice, no source. Told by the words in its name, the first that fits. */
const KINDS: readonly Kind[] = [
  {
    words: ['rivet'],
    how: 'Punch the mandrel through, drill the head off with a bit of the rivet\u2019s own diameter and no deeper than the head, punch the rest out',
    tool: 'center punch, twist drill of the rivet\u2019s diameter, pin punch',
    drilled: true,
    reusable: false,
    replacement: 'a screw with a clip or rivet nut',
  },
  {
    words: ['push pin', 'push-pin', 'scrivet', 'push rivet'],
    how: 'Lift its center pin first, then the body; if the center turns and does not lift, pull while turning',
    tool: 'clip lifter',
    reusable: false,
    replacement: 'a push pin of the same hole, a few are always lost',
  },
  {
    words: ['clip', 'christmas tree', 'barb'],
    how: 'Lever close beside the clip, not at the edge of the cover',
    tool: 'clip lifter',
    reusable: false,
    replacement: 'a clip of the same hole',
  },
  {
    words: ['captive'],
    how: 'Turn it out until it spins free; it stays in the cover',
    tool: 'screwdriver or hex key as its head is',
    reusable: true,
    replacement: 'itself',
  },
  {
    words: ['quarter turn', 'quarter-turn'],
    how: 'A quarter turn either way, then pull',
    tool: 'wide screwdriver',
    reusable: true,
    replacement: 'itself',
  },
];

const HEADS = ['hex', 'flange', 'button', 'countersunk', 'socket'] as const;

/** How every fastener of a factory part comes off. A bolt is turned out by the tool that its head and thread ask for. */
export const removals = ({ fasteners, reuseFasteners }: FactoryPart): readonly FactoryRemoval[] =>
  fasteners.map(f => {
    const name = f.head.toLowerCase();
    const kind = KINDS.find(k => k.words.some(w => name.includes(w)));
    const of = { head: f.head, thread: f.thread, count: f.count };
    if (kind)
      return {
        ...of,
        how: kind.how,
        tool: kind.tool,
        drilled: kind.drilled ?? false,
        reusable: kind.reusable,
        replacement: kind.replacement,
      };
    const head = HEADS.find(h => name.includes(h));
    const thread = threadNamed(f.thread);
    const tool =
      head && thread.ok ? headSize(head, thread.value).tool : `driver for ${f.head} ${f.thread}`.trim();
    return {
      ...of,
      how: 'Brush the thread, oil what is rusted, turn it out; heat and force snap studs: stop when it creaks',
      tool,
      drilled: false,
      reusable: true,
      replacement: reuseFasteners
        ? 'itself, bagged and marked'
        : 'itself, bagged in case the part goes back on',
    };
  });
