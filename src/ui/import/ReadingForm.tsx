import { Select, Switch } from '@mantine/core';
import type { Quote } from '../../core/exchange/csv/csv-rows';
import type { Encoding } from '../../core/exchange/text/detect-encoding';
import type { FilePreview, ReadingChange } from '../../protocol/import-messages';
import { DECIMAL_CHOICES, SEPARATOR_CHOICES } from '../files/csv-words';

const ENCODING_WORDS: readonly { readonly value: Encoding; readonly label: string }[] = [
  { value: 'utf-8', label: 'UTF-8' },
  { value: 'utf-16le', label: 'UTF-16, little-endian' },
  { value: 'utf-16be', label: 'UTF-16, big-endian' },
  { value: 'windows-1252', label: 'Windows-1252' },
];
const QUOTE_WORDS: readonly { readonly value: Quote | 'none'; readonly label: string }[] = [
  { value: '"', label: 'Double quotes' },
  { value: "'", label: 'Single quotes' },
  { value: 'none', label: 'None' },
];
const DATE_WORDS: readonly { readonly value: 'dmy' | 'mdy' | 'text'; readonly label: string }[] = [
  { value: 'dmy', label: 'Day first: 8/3/2026 is 8 March' },
  { value: 'mdy', label: 'Month first: 8/3/2026 is 3 August' },
  { value: 'text', label: 'Leave as text' },
];

interface Props {
  readonly preview: FilePreview;
  readonly change: (change: ReadingChange) => void;
}

/** How a file is read: the guesses, their reasons, and controls to correct them. */
export function ReadingForm({ preview: { form, reading, header }, change }: Props) {
  return (
    <>
      <Switch
        label="Header row"
        description={
          header === null ? 'fields are named A, B, C' : `row ${header + 1}; click another row number to change it`
        }
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
const FormChoices = ({ form, change }: FormProps) => (
  <>
    <Select
      label="Encoding"
      description={form.encodingWhy}
      data={ENCODING_WORDS}
      value={form.encoding}
      allowDeselect={false}
      onChange={(value) => value && change({ encoding: value })}
    />
    <Select
      label="Separator"
      description={form.separatorWhy}
      data={SEPARATOR_CHOICES}
      value={form.separator}
      allowDeselect={false}
      onChange={(value) => value && change({ separator: value })}
    />
    <Select
      label="Quotes"
      data={QUOTE_WORDS}
      value={form.quote === '' ? 'none' : form.quote}
      allowDeselect={false}
      onChange={(value) => value && change({ quote: value === 'none' ? '' : value })}
    />
  </>
);

interface ValueProps {
  readonly reading: NonNullable<FilePreview['reading']>;
  readonly change: Props['change'];
}

/** How the values are read. */
function ValueChoices({ reading, change }: ValueProps) {
  const hasFormulas = !reading.why.formulas.startsWith('no ');
  return (
    <>
      <Select
        label="Decimal separator"
        description={reading.why.decimal}
        data={DECIMAL_CHOICES}
        value={reading.decimal}
        allowDeselect={false}
        onChange={(value) => value && change({ decimal: value })}
      />
      <Select
        label="Date order"
        description={reading.why.dates}
        data={DATE_WORDS}
        value={reading.dates ?? 'text'}
        allowDeselect={false}
        onChange={(value) => value && change({ dates: value === 'text' ? null : value })}
      />
      {hasFormulas && (
        <Switch
          label="Read text that begins with = as formulas"
          description={reading.why.formulas}
          checked={reading.formulas}
          onChange={({ currentTarget }) => change({ formulas: currentTarget.checked })}
        />
      )}
    </>
  );
}
