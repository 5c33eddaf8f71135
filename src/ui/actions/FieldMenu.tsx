import { Menu } from '@mantine/core';
import { IconTableColumn } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import type { Key } from '../../texts/texts';
import type { TotalFunction } from '../../core/edit/totals';
import { useSession, useSessionState } from '../sheet/use-session';
import { selectedArea } from '../grid/engine/selection';
import { ActMenu } from './ActMenu';

const TOTALS: readonly { is: TotalFunction; label: Key<'actions'> }[] = [
  { is: 'sum', label: 'sum' },
  { is: 'average', label: 'average' },
  { is: 'median', label: 'median' },
  { is: 'count', label: 'count' },
  { is: 'least', label: 'minimum' },
  { is: 'greatest', label: 'maximum' },
];

/** Actions on the selected fields. */
export function FieldMenu() {
  const t = useTranslations('actions');
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const { left, right } = selectedArea(useSessionState((state) => state.selection));
  const count = right - left + 1;
  const label = frame?.fields[left]?.label ?? '';
  const fields = t('countFields', { count, label });
  return (
    <ActMenu label={t('fields')} icon={IconTableColumn} width={250}>
      <Menu.Item onClick={() => session.openPanel('new-rule')}>{t('makeRuleOverFields', { fields })}</Menu.Item>
      <Menu.Item onClick={() => void session.actions.edit({ do: 'insert-fields', at: left, count })}>
        {t('insertCountFieldsLeft', { count })}
      </Menu.Item>
      <Menu.Item onClick={() => void session.actions.edit({ do: 'insert-fields', at: right + 1, count })}>
        {t('insertCountFieldsRight', { count })}
      </Menu.Item>
      <Menu.Item onClick={() => void session.actions.fitFields(left, right)}>
        {t('fitFieldsContent', { fields })}
      </Menu.Item>
      <Menu.Item
        closeMenuOnClick={false}
        onClick={() => void session.actions.fitFields(0, (frame?.fields.length ?? 1) - 1)}
      >
        {t('fitAllFieldsContent')}
      </Menu.Item>
      <Menu.Item onClick={() => void session.actions.moveSelected(-1, 0)}>{t('moveFieldsLeft', { fields })}</Menu.Item>
      <Menu.Item onClick={() => void session.actions.moveSelected(1, 0)}>{t('moveFieldsRight', { fields })}</Menu.Item>
      <Menu.Item onClick={() => void session.actions.edit({ do: 'hide-fields', left, right, hidden: true })}>
        {t('hideFields', { fields })}
      </Menu.Item>
      <HiddenItem />
      <Menu.Item onClick={() => session.openPanel('values')}>{t('allowedValues')}</Menu.Item>
      <FreezeItem right={right} />
      <Menu.Item onClick={() => void session.actions.edit({ do: 'remove-fields', left, right })}>
        {t('removeFields', { fields })}
      </Menu.Item>
      <Menu.Divider />
      <TotalItems left={left} right={right} />
    </ActMenu>
  );
}

/** Brings hidden fields back. */
function HiddenItem() {
  const t = useTranslations('actions');
  const session = useSession();
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const hidden = fields.filter((field) => field.hidden).length;
  if (hidden === 0) return null;
  return (
    <Menu.Item
      onClick={() => void session.actions.edit({ do: 'hide-fields', left: 0, right: fields.length - 1, hidden: false })}
    >
      {t('showHiddenAllHidden', { hidden })}
    </Menu.Item>
  );
}

/** Keeps the fields up to one in view, or lets them scroll again. */
function FreezeItem({ right }: { readonly right: number }) {
  const t = useTranslations('actions');
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const freeze = (through: number | null) => void session.actions.edit({ do: 'freeze-fields', through });
  return frame?.frozenColumns === right + 1 ? (
    <Menu.Item onClick={() => freeze(null)}>{t('unfreezeFields')}</Menu.Item>
  ) : (
    <Menu.Item onClick={() => freeze(right)}>
      {t('freezeUpToLabel', { label: frame?.fields[right]?.label ?? '' })}
    </Menu.Item>
  );
}

/** The total that the selected fields have over all records. */
function TotalItems({ left, right }: { readonly left: number; readonly right: number }) {
  const t = useTranslations('actions');
  const session = useSession();
  const put = (is: TotalFunction | null) => void session.actions.edit({ do: 'set-total', left, right, is });
  return (
    <>
      <Menu.Label>{t('total')}</Menu.Label>
      <Menu.Item onClick={() => void session.actions.edit({ do: 'add-totals' })}>{t('totalsRowAllFields')}</Menu.Item>
      {TOTALS.map(({ is, label: words }) => (
        <Menu.Item key={is} onClick={() => put(is)}>
          {t(words)}
        </Menu.Item>
      ))}
      <Menu.Item onClick={() => put(null)}>{t('none')}</Menu.Item>
    </>
  );
}
