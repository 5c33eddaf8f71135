'use client';

import Link from 'next/link';
import type { SheetSummary } from '../../protocol/sheet-summary';
import { counted } from '../counted';
import { Mark } from '../sheet/Mark';
import { ThemeSwitch } from '../theme/ThemeSwitch';
import classes from './Desk.module.css';
import { NewSheet } from './NewSheet';

/** Where one begins: the sheets, and a new one. */
export function Desk({ sheets }: { readonly sheets: readonly SheetSummary[] }) {
  return (
    <main className={classes.desk}>
      <div className={classes.top}>
        <Mark />
        <span className={classes.brand}>Auxesis</span>
        <span className={classes.spacer} />
        <ThemeSwitch />
      </div>
      <h1 style={{ margin: 0, fontSize: 30, fontFamily: "'Newsreader Variable', serif", fontWeight: 500 }}>Your sheets</h1>
      <p className={classes.lead}>Open one to see what its rules bring out, or begin a new one.</p>
      {sheets.length > 0 && (
        <ul className={classes.list}>
          {sheets.map((sheet) => (
            <li key={sheet.id} className={classes.item}>
              <Link href={`/sheets/${encodeURIComponent(sheet.id)}`} className={classes.link} prefetch={false}>
                <span className={classes.name}>{sheet.name}</span>
                <span className={classes.fact}>{counted(sheet.records, 'record')}</span>
                <span className={classes.fact}>{counted(sheet.rules, 'rule')}</span>
                <time className={classes.fact} dateTime={sheet.changedAt} suppressHydrationWarning>
                  {new Date(sheet.changedAt).toLocaleDateString('en', { day: 'numeric', month: 'short', year: 'numeric' })}
                </time>
              </Link>
            </li>
          ))}
        </ul>
      )}
      <NewSheet />
    </main>
  );
}
