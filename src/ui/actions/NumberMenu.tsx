import { Button, Menu, Modal, TextInput } from '@mantine/core';
import { IconDecimal } from '@tabler/icons-react';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { formatNumber, parseNumberFormat } from '../../core/values/number-format';
import { isDatePattern } from '../../core/values/dates/date-format';
import { focusGrid } from '../grid/focus-grid';
import { useSession } from '../sheet/use-session';
import { ActMenu } from './ActMenu';

const FORMATS = [
  { name: 'asTyped', pattern: null, sample: '1234.5' },
  { name: 'whole', pattern: '#,##0', sample: formatNumber(1234.5, '#,##0') },
  { name: 'twoDecimals', pattern: '#,##0.00', sample: formatNumber(1234.5, '#,##0.00') },
  { name: 'percent', pattern: '0%', sample: formatNumber(0.705, '0%') },
  { name: 'percentOneDecimal', pattern: '0.0%', sample: formatNumber(0.705, '0.0%') },
  { name: 'euro', pattern: '€#,##0.00', sample: formatNumber(1234.5, '€#,##0.00') },
  { name: 'pound', pattern: '£#,##0.00', sample: formatNumber(1234.5, '£#,##0.00') },
  { name: 'date', pattern: 'd MMM yyyy', sample: '8 Mar 2026' },
  { name: 'dateISO', pattern: 'yyyy-MM-dd', sample: '2026-03-08' },
] as const;

/** How numbers and dates of the selected cells are shown. */
export function NumberMenu() {
  const t = useTranslations('actions');
  const session = useSession();
  const [isOwn, setOwn] = useState(false);
  const put = (number: string | null) => session.actions.style({ number });
  return (
    <>
      <ActMenu label={t('numbers')} icon={IconDecimal} width={250} onClose={() => !isOwn && focusGrid()}>
        <Menu.Item
          closeMenuOnClick={false}
          onClick={() => void session.actions.editEach((area) => ({ do: 'change-decimals', area, by: 1 }))}
        >
          {t('increaseDecimals')}
        </Menu.Item>
        <Menu.Item
          closeMenuOnClick={false}
          onClick={() => void session.actions.editEach((area) => ({ do: 'change-decimals', area, by: -1 }))}
        >
          {t('decreaseDecimals')}
        </Menu.Item>
        <Menu.Divider />
        {FORMATS.map(({ name, pattern, sample }) => (
          <Menu.Item
            key={name}
            onClick={() => put(pattern)}
            rightSection={<span style={{ color: 'var(--ink-second)' }}>{sample}</span>}
          >
            {t(name)}
          </Menu.Item>
        ))}
        <Menu.Divider />
        <Menu.Item onClick={() => setOwn(true)}>{t('customFormat2')}</Menu.Item>
      </ActMenu>
      {isOwn && <CustomFormat onPut={put} onClose={() => setOwn(false)} />}
    </>
  );
}

interface CustomFormatProps {
  readonly onPut: (pattern: string) => void;
  readonly onClose: () => void;
}

/** A number or date format that is typed. */
function CustomFormat({ onPut, onClose }: CustomFormatProps) {
  const t = useTranslations('actions');
  const [pattern, setPattern] = useState('');
  const isGood = parseNumberFormat(pattern) !== undefined || isDatePattern(pattern);
  const close = () => {
    onClose();
    focusGrid();
  };
  return (
    <Modal opened onClose={close} title={t('customFormat')} size="sm">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (!isGood) return;
          onPut(pattern);
          close();
        }}
      >
        <TextInput
          data-autofocus
          label={t('customFormat')}
          placeholder={t('orDMMMM')}
          value={pattern}
          error={pattern !== '' && !isGood && t('useDigitsDM')}
          onChange={(event) => setPattern(event.currentTarget.value)}
        />
        <Button type="submit" mt={12} disabled={!isGood}>
          {t('apply')}
        </Button>
      </form>
    </Modal>
  );
}
