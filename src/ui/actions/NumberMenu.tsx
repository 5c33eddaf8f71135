import { Button, Menu, TextInput } from '@mantine/core';
import { IconDecimal } from '@tabler/icons-react';
import { useState } from 'react';
import { formatNumber, parseNumberFormat } from '../../core/values/number-format';
import { isDatePattern } from '../../core/values/date-format';
import { focusGrid } from '../grid/focus-grid';
import { useSession } from '../sheet/use-session';

const FORMATS = [
  { name: 'As typed', pattern: null, sample: '1234.5' },
  { name: 'Whole', pattern: '#,##0', sample: formatNumber(1234.5, '#,##0') },
  { name: 'Two decimals', pattern: '#,##0.00', sample: formatNumber(1234.5, '#,##0.00') },
  { name: 'Percent', pattern: '0%', sample: formatNumber(0.705, '0%') },
  { name: 'Percent, one decimal', pattern: '0.0%', sample: formatNumber(0.705, '0.0%') },
  { name: 'Euro', pattern: '€#,##0.00', sample: formatNumber(1234.5, '€#,##0.00') },
  { name: 'Pound', pattern: '£#,##0.00', sample: formatNumber(1234.5, '£#,##0.00') },
  { name: 'Date', pattern: 'd MMM yyyy', sample: '8 Mar 2026' },
  { name: 'Date, ISO', pattern: 'yyyy-MM-dd', sample: '2026-03-08' },
] as const;

/** How numbers and dates of the selected cells are shown. */
export function NumberMenu() {
  const session = useSession();
  const [own, setOwn] = useState('');
  const isGood = parseNumberFormat(own) !== undefined || isDatePattern(own);
  const put = (number: string | null) => session.actions.style({ number });
  return (
    <Menu onClose={focusGrid} position="bottom-start" width={250}>
      <Menu.Target>
        <Button variant="subtle" color="ink" size="compact-sm" leftSection={<IconDecimal size={17} stroke={1.5} />}>
          Numbers
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item
          closeMenuOnClick={false}
          onClick={() => void session.actions.editEach((area) => ({ do: 'change-decimals', area, by: 1 }))}
        >
          Increase decimals
        </Menu.Item>
        <Menu.Item
          closeMenuOnClick={false}
          onClick={() => void session.actions.editEach((area) => ({ do: 'change-decimals', area, by: -1 }))}
        >
          Decrease decimals
        </Menu.Item>
        <Menu.Divider />
        {FORMATS.map(({ name, pattern, sample }) => (
          <Menu.Item
            key={name}
            onClick={() => put(pattern)}
            rightSection={<span style={{ color: 'var(--ink-second)' }}>{sample}</span>}
          >
            {name}
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
            label="Custom format"
            placeholder="#,##0.0 or d MMMM"
            value={own}
            error={own !== '' && !isGood && 'Use 0 and # for digits, or d, M and y for dates'}
            onChange={(event) => setOwn(event.currentTarget.value)}
            onKeyDown={(event) => event.stopPropagation()}
          />
        </form>
      </Menu.Dropdown>
    </Menu>
  );
}
