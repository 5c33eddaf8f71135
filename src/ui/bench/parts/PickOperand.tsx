import { useRef, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import type { Texts } from '../../../texts/texts';
import type { Typed } from '../../../core/rules/shape/read-threshold';
import type { FieldOperand, Operand } from '../../../core/rules/terms';
import { cellAddress, parseAddress } from '../../../core/sheet/address';
import type { ShownField } from '../../../protocol/sheet-view';
import type { SessionState } from '../../sheet/session-state';
import { useSession } from '../../sheet/use-session';
import { CellInput } from './CellInput';
import { FormulaInput } from './FormulaInput';
import { Pick, type PickOption } from './Pick';
import { ThresholdInput } from './ThresholdInput';

interface Props {
  readonly label: string;
  readonly operand: Operand;
  /** The field that is compared. */
  readonly field: ShownField | undefined;
  /** Fields of the same record that may be compared with; none where the operand is the same for all records. */
  readonly fields: readonly ShownField[];
  readonly takes: 'number' | 'any' | 'date';
  /** The input for a literal value. */
  readonly outright: Typed;
  readonly onChange: (operand: Operand) => void;
}

/**
 * An operand: a value, the content of a cell, another field of the record with a tolerance, or the result of a formula.
 * What it is chosen to be is entered next.
 */
export function PickOperand(props: Props) {
  const t = useTranslations('bench');
  const { label, operand, field, fields, takes, outright, onChange } = props;
  const session = useSession();
  const root = useRef<HTMLSpanElement>(null);
  /** The value that stood here before something else was chosen. */
  const lastValue = useRef<Typed | null>(null);
  const pick = (id: string) => {
    const address = proposedCell(session.get());
    if (typeof operand !== 'object') lastValue.current = operand;
    if (id === 'value') onChange(lastValue.current ?? outright);
    else if (id === 'cell') onChange({ cell: address });
    else if (id === 'formula') onChange({ formula: `=${absolute(address)}` });
    else onChange({ field: id.slice('field '.length) });
    // The menu gives its own focus back first.
    setTimeout(() => root.current?.querySelector<HTMLElement>('input, [contenteditable=true]')?.focus());
  };
  return (
    <span ref={root}>
      <OperandInput {...props}>
        <Pick
          label={t('labelIs', { label })}
          value={kindOf(operand)}
          shown={wordsOf(operand, fields, t)}
          options={optionsOf(
            takes,
            fields.filter((other) => other.id !== field?.id),
            t,
          )}
          onPick={pick}
        />
      </OperandInput>
    </span>
  );
}

/** The input for an operand; its children choose what it is. */
function OperandInput({ label, operand, field, takes, onChange, children }: Props & { readonly children: ReactNode }) {
  const t = useTranslations('bench');
  if (typeof operand !== 'object')
    return (
      <>
        <ThresholdInput
          label={label}
          value={operand}
          format={takes === 'date' ? null : (field?.format ?? null)}
          unit={typeof operand === 'number' ? (field?.unit ?? null) : null}
          takes={takes}
          onFormula={(text) => onChange(referenceOf(text))}
          onChange={onChange}
        />{' '}
        {children}
      </>
    );
  if ('cell' in operand)
    return (
      <>
        {children} <CellInput label={label} value={operand.cell} takes="cell" onChange={(cell) => onChange({ cell })} />
      </>
    );
  if ('formula' in operand)
    return (
      <>
        {children} <FormulaInput label={label} value={operand.formula} onChange={(formula) => onChange({ formula })} />
      </>
    );
  return (
    <>
      {children}
      {t('changedBy')} <FieldShift label={label} operand={operand} onChange={onChange} />
    </>
  );
}

/** The address of the active cell, or of the first record beneath it where that is a label. */
const proposedCell = ({ selection: { anchor }, frame }: SessionState): string =>
  cellAddress(anchor.column, Math.max(anchor.position, frame?.frozenRows ?? 0));

/** What an operand can be. */
const optionsOf = (takes: Props['takes'], others: readonly ShownField[], t: Texts<'bench'>): PickOption[] => [
  { id: 'value', words: takes === 'date' ? t('aDay') : t('value') },
  { id: 'cell', words: t('whatACellHolds') },
  { id: 'formula', words: t('whatAFormulaGives') },
  ...others.map((other) => ({ id: `field ${other.id}`, words: t('theRecordsLabel', { label: other.label }) })),
];

interface FieldShiftProps {
  readonly label: string;
  readonly operand: FieldOperand;
  readonly onChange: (operand: Operand) => void;
}

/** How far another field of the record is moved before it is compared: by a share of it, and by an amount. */
const FieldShift = ({ label, operand, onChange }: FieldShiftProps) => {
  const t = useTranslations('bench');
  return (
    <>
      <ThresholdInput
        label={t('labelTolerance', { label })}
        value={Number(((operand.times ?? 1) - 1).toPrecision(12))}
        format="0%"
        unit={null}
        takes="number"
        onChange={(share) => onChange({ ...operand, times: Number((1 + Number(share)).toPrecision(12)) })}
      />{' '}
      {t('and')}{' '}
      <ThresholdInput
        label={t('labelAmountAdded', { label })}
        value={operand.plus ?? 0}
        format={null}
        unit={null}
        takes="number"
        onChange={(plus) => onChange({ ...operand, plus: Number(plus) })}
      />
    </>
  );
};

/** "=B1" is that cell, anything else a formula. */
function referenceOf(text: string): Operand {
  const address = text.slice(1).trim().toUpperCase();
  return parseAddress(address) ? { cell: address } : { formula: text };
}

const absolute = (address: string): string => address.replace(/^([A-Z]+)(\d+)$/, '$$$1$$$2');

function kindOf(operand: Operand): string {
  if (typeof operand !== 'object') return 'value';
  if ('cell' in operand) return 'cell';
  return 'formula' in operand ? 'formula' : `field ${operand.field}`;
}

function wordsOf(operand: Operand, fields: readonly ShownField[], t: Texts<'bench'>): string {
  if (typeof operand !== 'object') return '▾';
  if ('cell' in operand) return t('whatCell');
  if ('formula' in operand) return t('whatGives');
  const field = fields.find(({ id }) => id === operand.field);
  return t('theRecordsLabel', { label: field?.label ?? t('removedField') });
}
