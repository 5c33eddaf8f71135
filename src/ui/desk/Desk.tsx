'use client';

import Link from 'next/link';
import type { SheetSummary } from '../../protocol/sheet-summary';
import { Page } from '../page/Page';
import { PersonMenu } from '../people/PersonMenu';
import classes from './Desk.module.css';
import { DeskSheet } from './DeskSheet';
import { NewSheet } from './NewSheet';

/** Where one begins: the sheets, and a new one. */
export function Desk({ sheets, person }: { readonly sheets: readonly SheetSummary[]; readonly person: string }) {
  return (
    <Page
      title="Your sheets"
      lead="Open one to see what its rules bring out, or begin a new one."
      width="wide"
      before={
        <Link href="/findings" className={classes.findings}>
          Findings
        </Link>
      }
      after={<PersonMenu person={{ name: person, hasAccount: true }} />}
    >
      {sheets.length > 0 && (
        <ul className={classes.list}>
          {sheets.map((sheet) => (
            <DeskSheet key={sheet.id} sheet={sheet} />
          ))}
        </ul>
      )}
      <NewSheet />
    </Page>
  );
}
