'use client';

import { PasswordInput } from '@mantine/core';
import { useState } from 'react';
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
  const [token, setToken] = useState('');
  return (
    <Page
      title="For programs"
      lead={
        <>
          Programs read records, enter them and hear of findings over HTTP. Everything here is also an{' '}
          <a href="/api/v1/openapi.json" className={classes.link}>
            OpenAPI 3.1 document
          </a>
          .
        </>
      }
      width="wide"
      isHome
    >
      <section className={classes.part}>
        <h2>A token</h2>
        <p>
          The owner of a sheet makes one under Share, Programs. It goes with each request:{' '}
          <code>Authorization: Bearer TOKEN</code>. It is good for that sheet, and for what it was made for:
        </p>
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
        <PasswordInput
          label="Your token, to try the examples"
          description="It stays in this page."
          maw={480}
          autoComplete="off"
          value={token}
          onChange={({ currentTarget }) => setToken(currentTarget.value.trim())}
        />
      </section>
      <section className={classes.part}>
        <h2>Answers</h2>
        <p>
          What is refused is told as <code>{'{ "refused": "why, and where in the request" }'}</code>: 400 not as it
          should be, 401 no token that works, 403 not what the token is good for, 404 no such sheet for it, 412 changed
          since it was read, 429 too often. An <code>ETag</code> that is sent back as <code>If-None-Match</code> is
          answered with 304 where nothing is different; <code>RateLimit-Remaining</code> says how many requests are left
          in this minute; pages are followed by their <code>next</code>, as <code>cursor</code>.
        </p>
      </section>
      {requests.map((request) => (
        <RequestPart key={request.id} asked={request} address={address} sheet={sheet} token={token} />
      ))}
    </Page>
  );
}
