import Router from '@koa/router';
import { eventStream } from '../event-stream';
import { Refusal } from '../fault';

/*
 * A simulated set of four wheel scales. The interface is the one a real set would have (docs/devices.md): who it is,
 * and a stream of readings. Everything it says carries `simulated: true`.
 */
export const PADS = ['front-left', 'front-right', 'rear-left', 'rear-right'] as const;
export type Pad = (typeof PADS)[number];

export interface Reading {
  readonly pad: Pad;
  readonly kg: number;
  readonly stable: boolean;
  readonly simulated: true;
}

/** How the simulated set behaves: as it should, on soft ground, or with a pad that stops answering. */
export const MOODS = ['good', 'noisy', 'dead-pad'] as const;
export type Mood = (typeof MOODS)[number];

const EVERY_MS = 100;
const SETTLED_S = 2.4;

/** What a pad shows `t` seconds after the wheel came onto it, kg: it swings in, then only trembles. */
export function padReading(
  load: number,
  t: number,
  mood: Mood,
  noise: () => number,
): { kg: number; stable: boolean } {
  const swing = 0.18 * Math.exp(-t / 0.6) * Math.cos(7 * t);
  const tremble = mood === 'noisy' ? 0.02 : 0.0006;
  const kg = load * (1 - swing + tremble * (2 * noise() - 1));
  return { kg: Math.max(0, Math.round(kg * 2) / 2), stable: mood !== 'noisy' && t > SETTLED_S };
}

/** Wheel loads of a vehicle that stands a little uneven, as they all do, kg. */
export const cornerLoads = (frontKg: number, rearKg: number): Readonly<Record<Pad, number>> => ({
  'front-left': frontKg * 0.508,
  'front-right': frontKg * 0.492,
  'rear-left': rearKg * 0.497,
  'rear-right': rearKg * 0.503,
});

const number = (value: unknown, name: string): number => {
  const n = Number(value);
  if (!Number.isFinite(n) || n <= 0 || n > 10_000)
    throw new Refusal(422, `${name} must be a mass in kg, not "${String(value)}".`);
  return n;
};

export function scalesRoutes(everyMs: number = EVERY_MS): Router {
  const router = new Router({ prefix: '/api/devices/scales' });

  router.get('/', ctx => {
    ctx.body = {
      name: 'wheel scales, simulated',
      pads: PADS,
      unit: 'kg',
      resolutionKg: 0.5,
      simulated: true,
      moods: MOODS,
    };
  });

  /** Readings as server-sent events, until all pads are stable, one has failed, or the reader leaves. */
  router.get('/readings', ctx => {
    const { frontKg, rearKg, mood = 'good' } = ctx.query;
    const loads = cornerLoads(number(frontKg, 'frontKg'), number(rearKg, 'rearKg'));
    if (!MOODS.includes(mood as Mood)) throw new Refusal(422, `mood must be one of ${MOODS.join(', ')}.`);
    const out = eventStream(ctx, () => clearInterval(timer));
    const { say } = out;
    let ticks = 0;
    const timer = setInterval(() => {
      ticks++;
      const t = (ticks * EVERY_MS) / 1000;
      const dead = mood === 'dead-pad' && t > 1 ? 'front-right' : undefined;
      const shown = PADS.filter(p => p !== dead).map(
        (pad): Reading => ({
          pad,
          ...padReading(loads[pad], t, mood as Mood, Math.random),
          simulated: true,
        }),
      );
      for (const r of shown) say('reading', r);
      const failed = dead !== undefined && t > 2;
      if (failed)
        say('failed', {
          pad: dead,
          fault: `The ${dead} pad does not answer. Check its cable.`,
          simulated: true,
        });
      const tired = mood === 'noisy' && t > 4;
      if (tired)
        say('failed', {
          fault: 'The readings do not settle: level, hard ground, nobody in the vehicle.',
          simulated: true,
        });
      const settled = shown.length === PADS.length && shown.every(r => r.stable);
      if (settled)
        say('settled', { pads: Object.fromEntries(shown.map(r => [r.pad, r.kg])), simulated: true });
      if (failed || tired || settled) {
        clearInterval(timer);
        out.end();
      }
    }, everyMs);
  });
  return router;
}
