import { Menu } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { useSession } from '../sheet/use-session';

interface Props {
  /** The first and the last row, counted from 0. */
  readonly top: number;
  readonly bottom: number;
}

/** What rows are called in a menu: by their numbers. */
export function useRowWords({ top, bottom }: Props): string {
  const t = useTranslations('actions');
  return top === bottom ? t('rowTop', { top: top + 1 }) : t('rowsTopToBottom', { top: top + 1, bottom: bottom + 1 });
}

/** The items that insert and delete rows. */
export function RowItems({ top, bottom }: Props) {
  const t = useTranslations('actions');
  const session = useSession();
  const rows = useRowWords({ top, bottom });
  const count = bottom - top + 1;
  return (
    <>
      <Menu.Item onClick={() => void session.actions.edit({ do: 'insert-rows', at: top, count })}>
        {t('insertCountRowsAbove', { count })}
      </Menu.Item>
      <Menu.Item onClick={() => void session.actions.edit({ do: 'insert-rows', at: bottom + 1, count })}>
        {t('insertCountRowsBelow', { count })}
      </Menu.Item>
      <Menu.Item onClick={() => void session.actions.edit({ do: 'remove-rows', top, bottom })}>
        {t('removeRows', { rows })}
      </Menu.Item>
    </>
  );
}
