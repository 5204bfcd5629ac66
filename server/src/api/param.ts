/** A path parameter; the router has matched it, so it is there. */
export const param = (params: Readonly<Record<string, string | undefined>>, name: string): string =>
  params[name] ?? '';
