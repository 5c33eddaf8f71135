import Link from 'next/link';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { PersonMenu } from '../people/PersonMenu';
import { Mark } from '../sheet/Mark';
import { ThemeSwitch } from '../theme/ThemeSwitch';
import classes from './SideScreen.module.css';

interface Props {
  readonly name: string;
  /** The ways to look at the sheet, where it is about one. */
  readonly views?: ReactNode;
  readonly person: string;
  readonly children: ReactNode;
}

/** A screen beside the sheet: its name and its views above, its contents below. */
export function SideScreen({ name, views, person, children }: Props) {
  const t = useTranslations('page');
  return (
    <div className={classes.screen}>
      <header className={classes.header}>
        <Link href="/" className={classes.mark} aria-label={t('allSheets')}>
          <Mark />
        </Link>
        <h1 className={classes.name}>{name}</h1>
        {views}
        <span className={classes.spacer} />
        <ThemeSwitch />
        <PersonMenu person={{ name: person, hasAccount: true }} />
      </header>
      {children}
    </div>
  );
}
