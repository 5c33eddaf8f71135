import type { Settings } from '../settings';

/**
 * The host and port of an address, as the setting lists them: `host:port`, also where the port is the usual one of its
 * protocol.
 */
function hostAndPort(url: URL): string {
  return `${url.hostname}:${url.port || (url.protocol === 'https:' ? '443' : '80')}`.toLowerCase();
}

/**
 * Why an address may not be a webhook; null where it may. Off unless a setting names addresses. Never the app's own
 * port, nor the database's: requests of the server itself pass doors that are closed to others.
 */
export function webhookRefusal(
  address: string,
  { webhooks, port, databasePorts }: Pick<Settings, 'webhooks' | 'port' | 'databasePorts'>,
): string | null {
  if (webhooks.length === 0)
    return 'This server tells no other address of findings. Who runs it can allow some by a setting.';
  if (!URL.canParse(address)) return 'Write an address such as http://127.0.0.1:9000/findings.';
  const url = new URL(address);
  if (url.protocol !== 'http:' && url.protocol !== 'https:') return 'The address must begin with http: or https:.';
  if (url.username || url.password) return 'The address must not hold a name or a password.';
  const asked = hostAndPort(url);
  const closed = [String(port), ...databasePorts];
  if (closed.includes(asked.slice(asked.lastIndexOf(':') + 1)) || !webhooks.includes(asked))
    return `This server may tell only these addresses of findings: ${webhooks.join(', ')}.`;
  return null;
}
