import { Button } from '@mantine/core';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { DescribedRequest } from '../../protocol/programs/openapi';
import { Copy } from '../share/Copy';
import classes from './Programs.module.css';

/** The length to which an answer is cut on the page. */
const MAX_SHOWN = 4000;

/** A query that says something with the demo. */
const QUERIES: Readonly<Record<string, string>> = {
  // oxlint-disable-next-line texts/in-catalogue -- a field of the demo's sheet
  readRecords: `?limit=2&where=${encodeURIComponent('Dissolved oxygen<7')}`,
  readFindings: '?limit=3',
  exportSheet: '?format=ooxml&report=true',
};

interface Props {
  readonly asked: DescribedRequest;
  readonly address: string;
  readonly sheet: string;
  readonly token: string;
}

/** One request: its purpose, its parameters, and an example that can be run. */
export function RequestPart({ asked, address, sheet, token }: Props) {
  const t = useTranslations('programs');
  const [answer, setAnswer] = useState<string | null>(null);
  const { id, method, path, says, about, scope, example, parameters } = asked;
  const url = `${address}/api/v1${path.replace('{sheet}', sheet)}${QUERIES[id] ?? ''}`;
  const body = example ? JSON.stringify(example) : undefined;
  const command = [
    `curl${method === 'get' ? '' : ` -X ${method.toUpperCase()}`} '${url}'`,
    `-H 'Authorization: Bearer ${token || 'TOKEN'}'`,
    ...(body ? [`-H 'Content-Type: application/json'`, `-d '${body}'`] : []),
  ].join(' \\\n  ');
  const isShown = id !== 'followFindings' && id !== 'replaceRules';

  // From where the page is: it may be reached by another of the app's names.
  const run = async () =>
    setAnswer((await answerOf(url.slice(address.length), { method, body, token })) ?? t('serverCannotBeReached'));

  return (
    <section className={classes.part} aria-label={says}>
      <h2>
        <code>
          {method.toUpperCase()} {path}
        </code>
      </h2>
      <p>
        {says}.{about && ` ${about}`} {scope ? <>{t('scopeScope', { scope })}</> : t('anyToken')}
      </p>
      <Parameters parameters={parameters} />
      <div className={classes.example}>
        <pre tabIndex={0}>{command}</pre>
        <div className={classes.acts}>
          <Copy text={command} label={t('copyExampleSays', { says })}>
            {t('copy')}
          </Copy>
          {isShown && (
            <Button size="compact-sm" variant="default" disabled={token === ''} onClick={() => void run()}>
              {t('runItHere')}
            </Button>
          )}
        </div>
        {answer !== null && (
          <pre tabIndex={0} aria-label={t('answer')}>
            {answer}
          </pre>
        )}
      </div>
    </section>
  );
}

interface ExampleRequest {
  readonly method: string;
  readonly body: string | undefined;
  readonly token: string;
}

/** The answer of the server to an example, as text to be shown; null where it cannot be reached. */
async function answerOf(path: string, { method, body, token }: ExampleRequest): Promise<string | null> {
  try {
    const response = await fetch(path, {
      method: method.toUpperCase(),
      headers: { authorization: `Bearer ${token}`, ...(body ? { 'content-type': 'application/json' } : {}) },
      ...(body ? { body } : {}),
    });
    const text = await response.text();
    const cut = text.length > MAX_SHOWN ? '\n…' : '';
    return `${response.status} ${response.statusText}\n${pretty(text).slice(0, MAX_SHOWN)}${cut}`;
  } catch {
    return null;
  }
}

/** The parameters of the request besides its body. */
function Parameters({ parameters }: Pick<DescribedRequest, 'parameters'>) {
  if (parameters.length === 0) return null;
  return (
    <table className={classes.parameters}>
      <tbody>
        {parameters.map(({ name, in: place, description }) => (
          <tr key={name}>
            <th scope="row">
              <code>{name}</code>
            </th>
            <td>{place}</td>
            <td>{description?.replaceAll('`', '')}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function pretty(text: string): string {
  try {
    return JSON.stringify(JSON.parse(text), null, 2);
  } catch {
    return text;
  }
}
