import { Refusal } from '../refusal';
import { refusalText } from '../../texts/refusal-text';
import type { Settings } from '../settings';

/** The host and port of the address of a database, as the setting lists them. */
export function linkedHost(address: string): string | null {
  if (!/^postgres(ql)?:\/\//.test(address) || !URL.canParse(address)) return null;
  const url = new URL(address);
  return url.hostname === '' ? null : `${url.hostname}:${url.port || '5432'}`.toLowerCase();
}

/**
 * The host and port of a database that may be linked. Throws a Refusal for all that the setting does not list: the
 * server reaches places that people cannot.
 */
export function requireLinkedHost(address: string, { linked }: Pick<Settings, 'linked'>): string {
  if (linked.length === 0) throw new Refusal('not-allowed', refusalText('linkedTablesAreOff'));
  const host = linkedHost(address);
  if (host === null) throw new Refusal('bad-request', refusalText('writeDatabaseAddress'));
  // Others would set what the server sets: that nothing is written, and for how long a statement may run.
  const others = [...new URL(address).searchParams.keys()].filter((name) => name !== 'sslmode');
  if (others.length) throw new Refusal('bad-request', refusalText('noParametersInAddress'));
  if (!linked.includes(host))
    throw new Refusal('not-allowed', refusalText('onlyTheseDatabases', { hosts: linked.join(', ') }));
  return host;
}
