import type { Method } from '../plan';

/** What holds a plate to the vehicle until its bolts do, in words, by how the vehicle stands. */
export interface Prop {
  /** as it is put in place and taken away again */
  readonly name: (plate: string) => string;
  readonly put: (plate: string) => string;
  readonly why: { readonly heavy: string; readonly light: string };
  readonly hows: readonly string[];
  readonly tools: readonly string[];
  readonly off: (plate: string) => string;
  /** how it is taken away and the plate watched */
  readonly watch: string;
  /** how the plate comes to its holes */
  readonly raise: string;
  /** true where the plate's weight rests on it, so that a balance point is told */
  readonly below: boolean;
}

const jack = (kind: string): Prop => ({
  name: plate => `jack under ${plate}`,
  put: plate => `Jack under ${plate}, at its balance point`,
  why: {
    heavy: 'The jack carries it, not your arms. It balances where the map shows the jack.',
    light: 'It balances where the map shows the jack; light as it is, both hands are free then.',
  },
  hows: ['A wooden block on the jack, wide enough that the plate cannot tip.'],
  tools: [`${kind} with a wooden block`],
  off: plate => `Take the jack from under ${plate}`,
  watch: 'Lower the jack a finger\u2019s width first and watch the plate: it must hang, not follow.',
  raise: 'Raise',
  below: true,
});

/** On its side the belly stands upright: nothing is jacked, the plate is held against it. Common practice, no source. */
const strapped: Prop = {
  name: plate => `straps round ${plate}`,
  put: plate => `Hold ${plate} up with straps or a helper`,
  why: {
    heavy: 'It is heavier than one person should lift: two lift it, straps keep it there.',
    light: 'It stands upright: straps keep it there, and both hands are free.',
  },
  hows: [
    'Rest its lower edge on a block at the right height.',
    'Two straps round it to the frame, clear of hoses and wires, snug.',
  ],
  tools: ['two straps', 'wooden blocks'],
  off: plate => `Take the straps off ${plate}`,
  watch: 'Slack them a little first and watch the plate: it must stay, not slide.',
  raise: 'Bring',
  below: false,
};

/** How a plate is held, by `method.lift`: a floor jack does not reach up to a lift. */
export const propOf = (lift: Method['lift']): Prop =>
  lift === 'side' ? strapped : jack(lift === 'two-post' ? 'transmission jack' : 'jack');
