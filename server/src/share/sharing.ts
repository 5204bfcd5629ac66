import { randomBytes } from 'node:crypto';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { networkInterfaces } from 'node:os';
import type Koa from 'koa';
import { Refusal } from '../fault';
import { type CodeAnswer, freshCode, type OneTimeCode, tryCode, withWrongTry, wrongInAll } from './code';

/** How a run is shared at present, as the desk is told. */
export interface ShareState {
  readonly run: string;
  /** addresses of this machine on the local network */
  readonly addresses: readonly string[];
  /** undefined when it was used or spent: the desk asks for a new one */
  readonly code?: { readonly text: string; readonly expiresAt: number };
  /** devices that were let in */
  readonly devices: number;
  /** codes that were tried in vain while this one is good, and from where; none: nobody has */
  readonly wrong?: { readonly tries: number; readonly from: readonly string[] };
}

/** How long a phone has to hear that the sharing has ended, ms. */
const LAST_WORD_MS = 60;
const SESSION_MS = 12 * 3600_000;
/** How long it stays open with nobody in and no code to come in by, ms. */
const EMPTY_MS = 10 * 60_000;
/** How long it stays open after the run is ended, for phones to hear of it and to send what they still have, ms. */
const ENDED_MS = 10 * 60_000;
const LOOK_MS = 30_000;
/** Connections in all, and from one address: a phone needs half a dozen. */
const MOST_CONNECTIONS = 128;
const MOST_OF_ONE = 24;
/** How long a request may take to arrive, ms. */
const SLOW_MS = 20_000;
/** Addresses named to the desk. */
const NAMED = 4;

/** Addresses of this machine that others on its local networks reach it by. */
export const localAddresses = (): readonly string[] =>
  Object.values(networkInterfaces()).flatMap(list =>
    (list ?? []).filter(a => a.family === 'IPv4' && !a.internal).map(a => a.address),
  );

export interface SharingOptions {
  /** where the second listener listens, and on which port if it is free (0: any free one) */
  readonly host: string;
  readonly port: number;
  /** the application that a let-in device reaches */
  readonly app: (sharing: Sharing) => Koa;
  /** told when the sharing of a run ends, before the door is shut */
  readonly onEnd?: (run: string) => void;
  readonly now?: () => number;
}

/**
 * Sharing of one run on the local network: a listener of its own that is open only while somebody shares, a one-time code, and who was let
 * in. All of it is forgotten when it ends.
 */
export class Sharing {
  readonly #options: SharingOptions;
  #server: Server | undefined;
  #run: string | undefined;
  #code: OneTimeCode | undefined;
  readonly #sessions = new Map<string, number>();
  readonly #connections = new Map<string, number>();
  #openedAt = 0;
  #endedAt: number | undefined;
  /** when somebody was last in, or could have come in */
  #aliveAt = 0;
  #timer: ReturnType<typeof setInterval> | undefined;

  constructor(options: SharingOptions) {
    this.#options = options;
  }

  get #now(): number {
    return (this.#options.now ?? Date.now)();
  }
  get run(): string | undefined {
    return this.#run;
  }

  /** Names under which the listener answers. */
  get hosts(): readonly string[] {
    const { host } = this.#options;
    return host === '0.0.0.0' ? localAddresses() : [host];
  }

  state(): ShareState | undefined {
    const address = this.#server?.address() as AddressInfo | null | undefined;
    if (this.#run === undefined || !address) return undefined;
    const code = this.#code && this.#now <= this.#code.expiresAt ? this.#code : undefined;
    return {
      run: this.#run,
      addresses: this.hosts.map(h => `http://${h}:${address.port}`),
      ...(code ? { code: { text: code.text, expiresAt: code.expiresAt } } : {}),
      devices: this.#devices(),
      ...(this.#code && this.#code.tries.size > 0
        ? {
            wrong: {
              tries: wrongInAll(this.#code),
              from: [...this.#code.tries.keys()].slice(0, NAMED),
            },
          }
        : {}),
    };
  }

  /** Devices whose session is good; those that are not are forgotten. */
  #devices(): number {
    for (const [token, until] of this.#sessions) if (until <= this.#now) this.#sessions.delete(token);
    return this.#sessions.size;
  }

  /** Told when a run has ended: the sharing of it ends a while later by itself. */
  runEnded(run: string): void {
    if (run === this.#run) this.#endedAt = this.#now;
  }

  /** Ends the sharing when its time is over; whether it did. Called by a timer while it is open. */
  async look(): Promise<boolean> {
    if (this.#run === undefined) return false;
    const now = this.#now;
    if (this.#devices() > 0 || (this.#code && now <= this.#code.expiresAt)) this.#aliveAt = now;
    const over =
      now - this.#openedAt > SESSION_MS ||
      now - this.#aliveAt > EMPTY_MS ||
      (this.#endedAt !== undefined && now - this.#endedAt > ENDED_MS);
    if (over) await this.close();
    return over;
  }

  /** Bounds what strangers can hold open. */
  #bounded(server: Server): Server {
    server.maxConnections = MOST_CONNECTIONS;
    server.headersTimeout = SLOW_MS;
    server.requestTimeout = 3 * SLOW_MS;
    server.on('connection', socket => {
      const from = socket.remoteAddress ?? '';
      const open = (this.#connections.get(from) ?? 0) + 1;
      if (open > MOST_OF_ONE) {
        socket.destroy();
        return;
      }
      this.#connections.set(from, open);
      socket.on('close', () => {
        const left = (this.#connections.get(from) ?? 1) - 1;
        if (left > 0) this.#connections.set(from, left);
        else this.#connections.delete(from);
      });
    });
    return server;
  }

  /** Opens the listener for a run, or changes over to it, and makes a new code. */
  async open(run: string): Promise<void> {
    if (this.hosts.length === 0)
      throw new Refusal(
        409,
        'This machine is on no local network: there is nothing a phone could reach it by.',
      );
    if (this.#run !== run) this.#sessions.clear();
    this.#run = run;
    this.#code = freshCode(this.#now);
    this.#openedAt = this.#now;
    this.#aliveAt = this.#now;
    this.#endedAt = undefined;
    this.#timer ??= setInterval(() => void this.look(), LOOK_MS).unref();
    if (this.#server) return;
    const server = this.#bounded(createServer(this.#options.app(this).callback()));
    // always the same port where it is free: what a phone still keeps belongs to the address it was kept under
    const { host, port } = this.#options;
    if (await this.#listens(server, port, host)) {
      this.#server = server;
      return;
    }
    await new Promise<void>((done, fail) => {
      server.once('error', e =>
        fail(new Refusal(409, `The local network cannot be listened on: ${e.message}.`)),
      );
      server.listen(0, host, done);
    });
    this.#server = server;
  }

  /** Whether the wanted port could be had; false where another has it. */
  #listens(server: Server, port: number, host: string): Promise<boolean> {
    return new Promise(done => {
      const failed = (): void => done(false);
      server.once('error', failed);
      server.listen(port, host, () => {
        server.off('error', failed);
        done(true);
      });
    });
  }

  /** Ends it: who was let in is out, and the port is closed. */
  async close(): Promise<void> {
    const server = this.#server;
    if (this.#run !== undefined) this.#options.onEnd?.(this.#run);
    clearInterval(this.#timer);
    this.#timer = undefined;
    this.#server = undefined;
    this.#run = undefined;
    this.#code = undefined;
    this.#sessions.clear();
    // what was said last is still on its way
    if (server) await new Promise(done => setTimeout(done, LAST_WORD_MS));
    server?.closeAllConnections();
    if (server) await new Promise(done => server.close(done));
  }

  /** Lets a device in that knows the code; the code is then spent. A token where it is right. */
  enter(
    typed: string,
    from: string,
  ): { readonly token: string } | { readonly why: Exclude<CodeAnswer, 'right'> } {
    const answer = tryCode(this.#code, typed, this.#now, from);
    if (answer === 'right') {
      this.#code = undefined;
      const token = randomBytes(24).toString('base64url');
      this.#sessions.set(token, this.#now + SESSION_MS);
      return { token };
    }
    if (answer === 'wrong' && this.#code) this.#code = withWrongTry(this.#code, from);
    return { why: answer };
  }

  letIn(token: string | undefined): boolean {
    const until = token === undefined ? undefined : this.#sessions.get(token);
    return until !== undefined && until > this.#now;
  }
}
