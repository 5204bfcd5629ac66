import type { RunningServer } from '../server';

export interface Answer {
  readonly status: number;
  readonly headers: Headers;
  // biome-ignore lint/suspicious/noExplicitAny: answers of many shapes
  readonly body: any;
}

/** Asks a server in tests: a text goes as it is, anything else as JSON. `server` is looked up at every call, since tests restart it. */
export const asking =
  (server: () => RunningServer) =>
  async (
    path: string,
    method = 'GET',
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer> => {
    const r = await fetch(`${server().address}${path}`, {
      method,
      headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
      body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
    });
    return { status: r.status, headers: r.headers, body: await r.json().catch(() => undefined) };
  };
