/**
 * Loads code that a sheet is read and edited without, so that a sheet opens sooner. Fails in words for the person where
 * the server cannot be reached.
 */
export async function loadLater<T>(load: () => Promise<T>): Promise<T> {
  try {
    return await load();
  } catch (error) {
    throw new Error('Files can be read once the server can be reached. Nothing was changed: try again then.', {
      cause: error,
    });
  }
}
