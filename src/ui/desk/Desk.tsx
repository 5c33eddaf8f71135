'use client';

import Link from 'next/link';
import type { SheetSummary } from '../../protocol/sheet-summary';
import { PersonMenu } from '../people/PersonMenu';
import { Mark } from '../sheet/Mark';
import { ThemeSwitch } from '../theme/ThemeSwitch';
import classes from './Desk.module.css';
import { DeskSheet } from './DeskSheet';
import { NewSheet } from './NewSheet';

/** Where one begins: the sheets, and a new one. */
export function Desk({ sheets, person }: { readonly sheets: readonly SheetSummary[]; readonly person: string }) {
  return (
    <main className={classes.desk}>
      <div className={classes.top}>
        <Mark />
        <span className={classes.brand}>Auxesis</span>
        <span className={classes.spacer} />
        <Link href="/findings" className={classes.findings}>
          Findings
        </Link>
        <ThemeSwitch />
        <PersonMenu person={{ name: person, hasAccount: true }} />
      </div>
      <h1 style={{ margin: 0, fontSize: 30, fontFamily: "'Newsreader Variable', serif", fontWeight: 500 }}>Your sheets</h1>
      <p className={classes.lead}>Open one to see what its rules bring out, or begin a new one.</p>
      {sheets.length > 0 && (
        <ul className={classes.list}>
          {sheets.map((sheet) => (
            <DeskSheet key={sheet.id} sheet={sheet} />
          ))}
        </ul>
      )}
      <NewSheet />
    </main>
  );
}
