import { Button } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { isFiller, type SheetRole } from '../../core/sharing/role';
import shared from './ActionBar.module.css';
import classes from './ReaderBar.module.css';
import { FindButton } from './find/FindButton';
import { UndoActs } from './UndoActs';

interface Props {
  readonly role: SheetRole;
  /** For fillers: whether the records stand one under the other, and how that is changed. */
  readonly list: { readonly isList: boolean; readonly onList: (isList: boolean) => void };
}

/** The actions of a reader without rules. */
export function ReaderBar({ role, list: { isList, onList } }: Props) {
  const t = useTranslations('actions');
  return (
    <div className={shared.bar} role="toolbar" aria-label={t('actions')}>
      {isFiller(role) && (
        <>
          <UndoActs />
          <span className={shared.gap} />
        </>
      )}
      {!isList && <FindButton />}
      {isFiller(role) && (
        <Button variant="subtle" color="ink" size="compact-sm" onClick={() => onList(!isList)}>
          {isList ? t('showTheSheet') : t('showAsAList')}
        </Button>
      )}
      {isFiller(role) && !isList && <span className={classes.hint}>{t('cellsLineTheirLeft')}</span>}
    </div>
  );
}
