/** The result of work, unless it fails or takes too long. */
export async function within<T>(work: Promise<T>, ms: number): Promise<T | undefined> {
  let late: NodeJS.Timeout | undefined;
  const patience = new Promise<undefined>((resolve) => {
    late = setTimeout(() => resolve(undefined), ms).unref();
  });
  try {
    return await Promise.race([work.catch(() => undefined), patience]);
  } finally {
    clearTimeout(late);
  }
}
