import Router from '@koa/router';
import type { TurnSample } from '@plate-fold/core/sequence';
import { eventStream } from '../event-stream';
import { Refusal } from '../fault';

/*
 * A simulated torque wrench, click and digital in one. The interface is the one a real wrench's bridge would have (docs/devices.md): who it
 * is, and a stream of torque and angle of one pull. Everything it says carries `simulated: true`.
 */
export const WRENCH_MOODS = ['good', 'cross-threaded', 'stripping', 'yielded', 'broken'] as const;
export type WrenchMood = (typeof WRENCH_MOODS)[number];

const EVERY_MS = 40;
/** Readings of one pull; a real wrench sends some 25 a second. */
const SAMPLES = 46;
/** Run down by hand before the head seats, and pulled up from there, degrees. */
const RUN_DOWN = 90;
const PULL = 55;

/** Torque over angle of one pull to `target` N·m, as a share of the pull `s` from 0 to 1. Invented, but shaped as joints are. */
export function pullAt(target: number, s: number, mood: WrenchMood): TurnSample {
  const seated = RUN_DOWN / (RUN_DOWN + PULL);
  const running = 0.04 * target;
  if (mood === 'cross-threaded') {
    // hard from the first turn on: it cuts its own way
    const deg = 420 * s;
    return { deg, nm: target * (s < 0.12 ? 4 * s : 0.48 + 0.1 * s + (s > 0.9 ? 4.4 * (s - 0.9) : 0)) };
  }
  if (mood === 'stripping') {
    const deg = (RUN_DOWN + 2.2 * PULL) * s;
    if (deg < RUN_DOWN) return { deg, nm: running };
    const u = (deg - RUN_DOWN) / (2.2 * PULL);
    return {
      deg,
      nm: running + target * (u < 0.35 ? (0.62 * u) / 0.35 : Math.max(0.15, 0.62 - 0.7 * (u - 0.35))),
    };
  }
  if (mood === 'yielded') {
    const deg = (RUN_DOWN + 3 * PULL) * s;
    if (deg < RUN_DOWN) return { deg, nm: running };
    const u = (deg - RUN_DOWN) / (3 * PULL);
    return { deg, nm: running + target * (u < 0.28 ? (0.8 * u) / 0.28 : 0.8 + 0.16 * ((u - 0.28) / 0.72)) };
  }
  const deg = (RUN_DOWN + PULL) * s;
  return {
    deg,
    nm: s < seated ? running : running + ((target * 1.012 - running) * (s - seated)) / (1 - seated),
  };
}

const number = (value: unknown): number => {
  const n = Number(value);
  if (!Number.isFinite(n) || n <= 0 || n > 1000)
    throw new Refusal(422, `targetNm must be a torque in N\u00b7m, not "${String(value)}".`);
  return n;
};

export function wrenchRoutes(everyMs: number = EVERY_MS): Router {
  const router = new Router({ prefix: '/api/devices/wrench' });

  router.get('/', ctx => {
    ctx.body = {
      name: 'torque wrench, simulated',
      lowNm: 2,
      highNm: 200,
      unit: 'N\u00b7m',
      simulated: true,
      moods: WRENCH_MOODS,
    };
  });

  /** One pull as server-sent events: readings, a click at the target, and its release; or the stream breaks. */
  router.get('/readings', ctx => {
    const target = number(ctx.query.targetNm);
    const mood = (ctx.query.mood ?? 'good') as WrenchMood;
    if (!WRENCH_MOODS.includes(mood))
      throw new Refusal(422, `mood must be one of ${WRENCH_MOODS.join(', ')}.`);
    const out = eventStream(ctx, () => clearInterval(timer));
    const say = (event: string, data: object): void => out.say(event, { ...data, simulated: true });
    let i = 0;
    let peakNm = 0;
    let clicked = false;
    const timer = setInterval(() => {
      i++;
      const { nm, deg } = pullAt(target, i / SAMPLES, mood);
      const read = { nm: Math.round(nm * 10) / 10, deg: Math.round(deg * 10) / 10 };
      peakNm = Math.max(peakNm, read.nm);
      say('reading', read);
      if (!clicked && nm >= target) {
        clicked = true;
        say('click', { nm: read.nm });
      }
      if (mood === 'broken' && i > SAMPLES / 3) {
        clearInterval(timer);
        // as when its battery dies: no word of farewell
        ctx.res.destroy();
        return;
      }
      if (i >= SAMPLES) {
        clearInterval(timer);
        say('released', { peakNm });
        out.end();
      }
    }, everyMs);
  });
  return router;
}
