import { Button, Radio, Select, Switch } from '@mantine/core';
import { useState } from 'react';
import { messageOf } from '../../core/values/error-message';
import { keysOf, recordOf } from '../../core/values/typed-keys';
import type { Separator } from '../../core/exchange/csv/csv-rows';
import { EXPORT_FORMATS, type ExportFormatName } from '../../core/exchange/export-formats';
import type { Decimal } from '../../core/exchange/exported-file';
import type { ExportReport } from '../../core/exchange/export-source';
import { writeArea } from '../../core/sheet/address';
import { selectedArea } from '../grid/engine/selection';
import { useSession, useSessionState } from '../sheet/use-session';
import { DECIMAL_CHOICES, SEPARATOR_CHOICES } from './csv-words';
import classes from './Files.module.css';
import { saveFile } from './save-file';

type Choice = ExportFormatName | 'archive' | 'page';

const WORDS: Readonly<Record<Choice, string>> = {
  ...recordOf(keysOf(EXPORT_FORMATS), (name) => EXPORT_FORMATS[name].words),
  archive: 'Archive: everything, its history too, to be brought in again',
  page: 'On paper: a page to print, or to save as PDF',
};
const CHOICES = keysOf(WORDS);
/** Formats without rules. */
const SEEN: readonly Choice[] = ['csv', 'page'];
const FATE_WORDS = {
  rule: 'as a rule',
  formula: 'by formulas',
  formatting: 'as plain formatting',
  nothing: 'left out',
} as const;

/** The export dialog: the range, the format, and what the file will leave out. */
export function ExportPanel({ isMaker }: { readonly isMaker: boolean }) {
  const choices = isMaker ? CHOICES : SEEN;
  const session = useSession();
  const selection = useSessionState((state) => state.selection);
  const [format, setFormat] = useState<Choice>(isMaker ? 'ooxml' : 'csv');
  const [part, setPart] = useState<'all' | 'selection'>('all');
  const [values, setValues] = useState<'shown' | 'typed'>('shown');
  const [separator, setSeparator] = useState<Separator>(',');
  const [decimal, setDecimal] = useState<Decimal>('.');
  const [guard, setGuard] = useState(true);
  const [report, setReport] = useState<{ readonly name: string; readonly report: ExportReport } | null>(null);
  const [error, setError] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const area = selectedArea(selection);
  const of = `/sheets/${encodeURIComponent(session.sheet)}`;
  const takesPart = !['archive', 'page', 'rules'].includes(format);

  const take = async () => {
    if (format === 'archive' || format === 'page') return;
    setBusy(true);
    setError(null);
    try {
      const {
        file,
        name,
        report: told,
      } = await session.ask({
        kind: 'export',
        format,
        options: { values, separator, decimal, guard },
        ...(takesPart && part === 'selection' ? { area } : {}),
      });
      saveFile(file, name);
      setReport({ name, report: told });
    } catch (failed) {
      setError(messageOf(failed));
    }
    setBusy(false);
  };
  const choose = (value: Choice) => {
    setFormat(value);
    setReport(null);
  };

  return (
    <div className={classes.panel}>
      <Radio.Group<Choice> value={format} onChange={choose} label="As">
        <div className={classes.choices}>
          {choices.map((name) => (
            <Radio key={name} value={name} label={WORDS[name]} />
          ))}
        </div>
      </Radio.Group>
      {takesPart && (
        <Radio.Group<'all' | 'selection'> value={part} onChange={setPart} label="Of it">
          <div className={classes.choices}>
            <Radio value="all" label="The whole sheet" />
            <Radio value="selection" label={`What is selected: ${writeArea(area)}`} />
          </div>
        </Radio.Group>
      )}
      {format === 'csv' && (
        <>
          {isMaker && (
            <Radio.Group<'shown' | 'typed'> value={values} onChange={setValues} label="Values">
              <div className={classes.choices}>
                <Radio value="shown" label="As they are shown" />
                <Radio value="typed" label="As they were typed, formulas and all: so they come back as they are" />
              </div>
            </Radio.Group>
          )}
          <div className={classes.pair}>
            <Select
              label="Between values"
              w={200}
              data={SEPARATOR_CHOICES}
              value={separator}
              allowDeselect={false}
              onChange={(value) => value && setSeparator(value)}
            />
            {values === 'shown' && (
              <Select
                label="Decimals"
                w={200}
                data={DECIMAL_CHOICES}
                value={decimal}
                allowDeselect={false}
                onChange={(value) => value && setDecimal(value)}
              />
            )}
          </div>
          {values === 'shown' && (
            <Switch
              label="Guard text that begins like a formula"
              description="other programs may run text that begins with =, +, - or @: an apostrophe before it stops that"
              checked={guard}
              onChange={({ currentTarget }) => setGuard(currentTarget.checked)}
            />
          )}
        </>
      )}
      {error && <p role="alert">{error}</p>}
      <div>
        {format === 'archive' ? (
          <Button component="a" href={`/api${of}/archive`} download>
            Take it out
          </Button>
        ) : format === 'page' ? (
          <Button component="a" href={`${of}/paper`} target="_blank">
            Open the page
          </Button>
        ) : (
          <Button onClick={() => void take()} loading={isBusy}>
            Take it out
          </Button>
        )}
      </div>
      {report && <Report {...report} />}
    </div>
  );
}

/** The fate of the rules, and other notes. */
function Report({ name, report: { rules, notes } }: { readonly name: string; readonly report: ExportReport }) {
  return (
    <section aria-label="What is in the file" className={classes.report}>
      <h3>“{name}” is with your downloads</h3>
      {notes.map((note) => (
        <p key={note}>{note}.</p>
      ))}
      {rules.length > 0 && (
        <table>
          <thead>
            <tr>
              <th scope="col">Rule</th>
              <th scope="col">In the file</th>
              <th scope="col">To be known</th>
            </tr>
          </thead>
          <tbody>
            {rules.map((rule, at) => (
              <tr key={at} data-as={rule.as}>
                <td>{rule.name}</td>
                <td>{FATE_WORDS[rule.as]}</td>
                <td>{rule.note}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
