import { Select, Switch } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { labelled } from '../../texts/texts';
import type { Key } from '../../texts/texts';
import type { Quote } from '../../core/exchange/csv/csv-rows';
import type { Encoding } from '../../core/exchange/text/detect-encoding';
import type { FilePreview, ReadingChange } from '../../protocol/import-messages';
import { useCsvChoices } from '../files/use-csv-choices';

const ENCODING_WORDS: readonly { readonly value: Encoding; readonly label: Key<'importing'> }[] = [
  { value: 'utf-8', label: 'utf8' },
  { value: 'utf-16le', label: 'utf16LittleEndian' },
  { value: 'utf-16be', label: 'utf16BigEndian' },
  { value: 'windows-1252', label: 'windows1252' },
];
const QUOTE_WORDS: readonly { readonly value: Quote | 'none'; readonly label: Key<'importing'> }[] = [
  { value: '"', label: 'doubleQuotes' },
  { value: "'", label: 'singleQuotes' },
  { value: 'none', label: 'none' },
];
const DATE_WORDS: readonly { readonly value: 'dmy' | 'mdy' | 'text'; readonly label: Key<'importing'> }[] = [
  { value: 'dmy', label: 'dayFirst83' },
  { value: 'mdy', label: 'monthFirst83' },
  { value: 'text', label: 'leaveAsText' },
];

interface Props {
  readonly preview: FilePreview;
  readonly change: (change: ReadingChange) => void;
}

/** How a file is read: the guesses, their reasons, and controls to correct them. */
export function ReadingForm({ preview: { form, reading, header }, change }: Props) {
  const t = useTranslations('importing');
  return (
    <>
      <Switch
        label={t('headerRow')}
        description={header === null ? t('fieldsNamedBC') : t('rowHeaderClickAnother', { header: header + 1 })}
        checked={header !== null}
        onChange={({ currentTarget }) => change({ header: currentTarget.checked ? 0 : null })}
      />
      {form && <FormChoices form={form} change={change} />}
      {reading && <ValueChoices reading={reading} change={change} />}
    </>
  );
}

interface FormProps {
  readonly form: NonNullable<FilePreview['form']>;
  readonly change: Props['change'];
}

/** How the text of a file is divided into values. */
const FormChoices = ({ form, change }: FormProps) => {
  const t = useTranslations('importing');
  const { separators } = useCsvChoices();
  return (
    <>
      <Select
        label={t('encoding')}
        description={form.encodingWhy}
        data={labelled(ENCODING_WORDS, (key) => t(key))}
        value={form.encoding}
        allowDeselect={false}
        onChange={(value) => value && change({ encoding: value })}
      />
      <Select
        label={t('separator')}
        description={form.separatorWhy}
        data={separators}
        value={form.separator}
        allowDeselect={false}
        onChange={(value) => value && change({ separator: value })}
      />
      <Select
        label={t('quotes')}
        data={labelled(QUOTE_WORDS, (key) => t(key))}
        value={form.quote === '' ? 'none' : form.quote}
        allowDeselect={false}
        onChange={(value) => value && change({ quote: value === 'none' ? '' : value })}
      />
    </>
  );
};

interface ValueProps {
  readonly reading: NonNullable<FilePreview['reading']>;
  readonly change: Props['change'];
}

/** How the values are read. */
function ValueChoices({ reading, change }: ValueProps) {
  const t = useTranslations('importing');
  const { decimals } = useCsvChoices();
  const hasFormulas = !reading.why.formulas.startsWith('no ');
  return (
    <>
      <Select
        label={t('decimalSeparator')}
        description={reading.why.decimal}
        data={decimals}
        value={reading.decimal}
        allowDeselect={false}
        onChange={(value) => value && change({ decimal: value })}
      />
      <Select
        label={t('dateOrder')}
        description={reading.why.dates}
        data={labelled(DATE_WORDS, (key) => t(key))}
        value={reading.dates ?? 'text'}
        allowDeselect={false}
        onChange={(value) => value && change({ dates: value === 'text' ? null : value })}
      />
      {hasFormulas && (
        <Switch
          label={t('readTextBeginsAs')}
          description={reading.why.formulas}
          checked={reading.formulas}
          onChange={({ currentTarget }) => change({ formulas: currentTarget.checked })}
        />
      )}
    </>
  );
}
