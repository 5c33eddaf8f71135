import { Button, Radio, Select, Switch } from '@mantine/core';
import { useState } from 'react';
import { SEPARATORS, type Separator } from '../../core/exchange/csv/csv-rows';
import { EXPORT_FORMATS, type ExportFormatName } from '../../core/exchange/export-formats';
import type { ExportReport } from '../../core/exchange/export-source';
import { writeArea } from '../../core/sheet/address';
import type { Area } from '../../protocol/engine-messages';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Files.module.css';
import { saveFile } from './save-file';

type Choice = ExportFormatName | 'archive' | 'page';

const MORE: Readonly<Record<Exclude<Choice, ExportFormatName>, string>> = {
  archive: 'Archive: everything, its history too, to be brought in again',
  page: 'On paper: a page to print, or to save as PDF',
};
const SEPARATOR_WORDS: Readonly<Record<Separator, string>> = { ',': 'Comma', ';': 'Semicolon', '\t': 'Tab', '|': 'Upright stroke' };
const FATE_WORDS = { rule: 'as a rule', formula: 'by formulas', formatting: 'as plain formatting', nothing: 'left out' } as const;

/** What to take out, as what, and what the file will not say as the sheet does. */
export function ExportPanel() {
  const session = useSession();
  const selection = useSessionState((state) => state.selection);
  const [format, setFormat] = useState<Choice>('ooxml');
  const [part, setPart] = useState<'all' | 'selection'>('all');
  const [values, setValues] = useState<'shown' | 'typed'>('shown');
  const [separator, setSeparator] = useState<Separator>(',');
  const [guard, setGuard] = useState(true);
  const [report, setReport] = useState<{ readonly name: string; readonly report: ExportReport } | null>(null);
  const [error, setError] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const area = areaOf(selection);
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
        options: { values, separator, guard },
        ...(takesPart && part === 'selection' ? { area } : {}),
      });
      saveFile(file, name);
      setReport({ name, report: told });
    } catch (failed) {
      setError((failed as Error).message);
    }
    setBusy(false);
  };
  const choose = (value: string) => {
    setFormat(value as Choice);
    setReport(null);
  };

  return (
    <div className={classes.panel}>
      <Radio.Group value={format} onChange={choose} label="As">
        <div className={classes.choices}>
          {Object.entries(EXPORT_FORMATS).map(([name, { words }]) => (
            <Radio key={name} value={name} label={words} />
          ))}
          {Object.entries(MORE).map(([name, words]) => (
            <Radio key={name} value={name} label={words} />
          ))}
        </div>
      </Radio.Group>
      {takesPart && (
        <Radio.Group value={part} onChange={(value) => setPart(value as typeof part)} label="Of it">
          <div className={classes.choices}>
            <Radio value="all" label="The whole sheet" />
            <Radio value="selection" label={`What is selected: ${writeArea(area)}`} />
          </div>
        </Radio.Group>
      )}
      {format === 'csv' && (
        <>
          <Radio.Group value={values} onChange={(value) => setValues(value as typeof values)} label="Values">
            <div className={classes.choices}>
              <Radio value="shown" label="As they are shown" />
              <Radio value="typed" label="As they were typed, formulas and all: so they come back as they are" />
            </div>
          </Radio.Group>
          <Select
            label="Between values"
            w={200}
            data={SEPARATORS.map((value) => ({ value, label: SEPARATOR_WORDS[value] }))}
            value={separator}
            allowDeselect={false}
            onChange={(value) => value && setSeparator(value as Separator)}
          />
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

/** What became of the rules, and what else is to be known. */
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

const areaOf = ({
  anchor,
  focus,
}: {
  readonly anchor: { column: number; position: number };
  readonly focus: { column: number; position: number };
}): Area => ({
  left: Math.min(anchor.column, focus.column),
  right: Math.max(anchor.column, focus.column),
  top: Math.min(anchor.position, focus.position),
  bottom: Math.max(anchor.position, focus.position),
});
