'use client';

import Link from 'next/link';
import { useCallback, useState } from 'react';
import type { SheetSummary } from '../../protocol/sheet-summary';
import { FileDrop } from '../import/FileDrop';
import { ImportScreen } from '../import/ImportScreen';
import { Page } from '../page/Page';
import { PersonMenu } from '../people/PersonMenu';
import classes from './Desk.module.css';
import { DeskSheet } from './DeskSheet';
import { NewSheet } from './NewSheet';

/** The start page: the sheets, a new one, and files to import. */
export function Desk({ sheets, person }: { readonly sheets: readonly SheetSummary[]; readonly person: string }) {
  const [file, setFile] = useState<File | null>(null);
  const leave = useCallback(() => setFile(null), []);
  if (file) return <ImportScreen file={file} leave={leave} />;
  return (
    <Page
      title="Your sheets"
      lead="Open a sheet, create one, or import a file."
      width="wide"
      before={
        <Link href="/findings" className={classes.findings}>
          Findings
        </Link>
      }
      after={<PersonMenu person={{ name: person, hasAccount: true }} />}
    >
      <NewSheet />
      <FileDrop take={setFile} />
      {sheets.length > 0 && (
        <ul className={classes.list}>
          {sheets.map((sheet) => (
            <DeskSheet key={sheet.id} sheet={sheet} />
          ))}
        </ul>
      )}
    </Page>
  );
}
