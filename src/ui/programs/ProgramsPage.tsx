'use client';

import { Password } from '../people/Password';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { DescribedRequest } from '../../protocol/programs/openapi';
import { SCOPES } from '../../protocol/programs/scopes';
import { Page } from '../page/Page';
import { RequestPart } from './RequestPart';
import classes from './Programs.module.css';

interface Props {
  readonly requests: readonly DescribedRequest[];
  readonly address: string;
  readonly sheet: string;
}

/** How programs ask, with examples that run in the page once it has a token. */
export function ProgramsPage({ requests, address, sheet }: Props) {
  const t = useTranslations('programs');
  const [token, setToken] = useState('');
  return (
    <Page
      title={t('programs')}
      lead={
        <>
          {t.rich('programsReadRecordsEnter', {
            a: (chunks) => (
              <a href="/api/v1/openapi.json" className={classes.link}>
                {chunks}
              </a>
            ),
          })}
        </>
      }
      width="wide"
      isHome
    >
      <section className={classes.part}>
        <h2>{t('aToken')}</h2>
        <p>{t.rich('ownerSheetMakesOne', { code: (chunks) => <code>{chunks}</code> })}</p>
        <dl className={classes.scopes}>
          {Object.entries(SCOPES).map(([scope, words]) => (
            <div key={scope}>
              <dt>
                <code>{scope}</code>
              </dt>
              <dd>{words}</dd>
            </div>
          ))}
        </dl>
        <Password
          label={t('yourTokenTryExamples')}
          description={t('staysPage')}
          maw={480}
          autoComplete="off"
          value={token}
          onChange={({ currentTarget }) => setToken(currentTarget.value.trim())}
        />
      </section>
      <section className={classes.part}>
        <h2>{t('answers')}</h2>
        <p>{t.rich('whatRefusedToldAs', { code: (chunks) => <code>{chunks}</code> })}</p>
      </section>
      {requests.map((request) => (
        <RequestPart key={request.id} asked={request} address={address} sheet={sheet} token={token} />
      ))}
    </Page>
  );
}
