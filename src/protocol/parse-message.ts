/**
 * The value of a JSON text that another part of this program has written, whose shape the caller knows by where it
 * comes from. Never for what people or other programs send: that is checked by a schema.
 */
export const parseMessage = <T>(json: string): T => JSON.parse(json) as T;

/** The same of the body of a response. Rejects where it is no JSON. */
export const readMessage = async <T>(response: Response): Promise<T> => (await response.json()) as T;
