import Link from 'next/link';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { Mark } from '../sheet/Mark';
import { ThemeSwitch } from '../theme/ThemeSwitch';
import classes from './Page.module.css';

interface Props {
  readonly title: string;
  /** The words under the title. */
  readonly lead?: ReactNode;
  readonly width?: 'narrow' | 'medium' | 'wide' | 'full';
  /** Whether the mark links to the sheets: it does not on pages for people without an account. */
  readonly isHome?: boolean;
  /** The end of the top line, before and after the switch of the theme. */
  readonly before?: ReactNode;
  readonly after?: ReactNode;
  readonly children: ReactNode;
}

/** A page to read and fill in, away from any sheet: the app's name at the top, a title, and what it is about. */
export function Page({ title, lead, width = 'narrow', isHome = false, before, after, children }: Props) {
  const t = useTranslations('page');
  return (
    <main className={classes.page} data-width={width}>
      <div className={classes.top}>
        {isHome ? (
          <Link href="/" aria-label={t('allSheets')} className={classes.mark}>
            <Mark />
          </Link>
        ) : (
          <Mark />
        )}
        <span className={classes.brand}>{t('auxesis')}</span>
        <span className={classes.spacer} />
        {before}
        <ThemeSwitch />
        {after}
      </div>
      <h1 className={classes.title}>{title}</h1>
      {lead && <p className={classes.lead}>{lead}</p>}
      {children}
    </main>
  );
}
