/** Objects that the whole process shares, by name. */
interface Shared {
  auxesis?: Map<string, unknown>;
}

/**
 * The process's object of a name, made when it is first asked for. The front door and the route handlers are bundled
 * apart, so a variable of a module would exist several times: these objects hang on the global object instead.
 */
export function processWide<T>(name: string, make: () => T): T {
  const objects = ((globalThis as Shared).auxesis ??= new Map<string, unknown>());
  if (!objects.has(name)) objects.set(name, make());
  return objects.get(name) as T; // each name is used in one file, with one type
}
