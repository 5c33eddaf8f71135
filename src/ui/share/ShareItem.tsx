import { Button } from '@mantine/core';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import classes from './Share.module.css';

interface Props {
  readonly name: string;
  /** What is to be known about it, below its name. */
  readonly children: ReactNode;
  /** The accessible name of the button that takes it back. */
  readonly label: string;
  readonly onTakeBack: () => void;
}

/** Somebody or something that a sheet is shared with, in a list of them. */
export const ShareItem = ({ name, children, label, onTakeBack }: Props) => {
  const t = useTranslations('share');
  return (
    <li className={classes.item}>
      <span className={classes.who}>
        <b>{name}</b>
        {children}
      </span>
      <Button size="compact-xs" variant="default" aria-label={label} onClick={onTakeBack}>
        {t('delete')}
      </Button>
    </li>
  );
};
