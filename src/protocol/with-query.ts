/** An address with the parameters of a query. Those that are undefined are left out. */
export function withQuery(path: string, parameters: Readonly<Record<string, string | number | undefined>>): string {
  const given = Object.entries(parameters).flatMap(([name, value]) =>
    value === undefined ? [] : [[name, String(value)]],
  );
  return given.length ? `${path}?${new URLSearchParams(given)}` : path;
}
