import { Button, Menu, TextInput } from '@mantine/core';
import { IconDecimal } from '@tabler/icons-react';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { formatNumber, parseNumberFormat } from '../../core/values/number-format';
import { isDatePattern } from '../../core/values/date-format';
import { focusGrid } from '../grid/focus-grid';
import { useSession } from '../sheet/use-session';

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
  const [own, setOwn] = useState('');
  const isGood = parseNumberFormat(own) !== undefined || isDatePattern(own);
  const put = (number: string | null) => session.actions.style({ number });
  return (
    <Menu onClose={focusGrid} position="bottom-start" width={250}>
      <Menu.Target>
        <Button variant="subtle" color="ink" size="compact-sm" leftSection={<IconDecimal size={17} stroke={1.5} />}>
          {t('numbers')}
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
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
        <form
          style={{ padding: '4px 10px 8px' }}
          onSubmit={(event) => {
            event.preventDefault();
            if (isGood) put(own);
          }}
        >
          <TextInput
            size="xs"
            label={t('customFormat')}
            placeholder={t('orDMMMM')}
            value={own}
            error={own !== '' && !isGood && t('useDigitsDM')}
            onChange={(event) => setOwn(event.currentTarget.value)}
            onKeyDown={(event) => event.stopPropagation()}
          />
        </form>
      </Menu.Dropdown>
    </Menu>
  );
}
