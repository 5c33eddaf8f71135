import { Button, Radio } from '@mantine/core';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { type SheetId } from '../../core/sheet/ids';
import { sheetUrl, sheetPageUrl } from '../../protocol/sheet-url';
import { CsvOptions, USUAL_CSV } from './CsvOptions';
import { messageOf } from '../../core/values/error-message';
import { keysOf, recordOf } from '../../core/values/typed-keys';
import { EXPORT_FORMATS, type ExportFormatName } from '../../core/exchange/export-formats';
import { FATE_WORDS, fateGroups, type ExportReport } from '../../core/exchange/export-source';
import { writeArea } from '../../core/sheet/address';
import { selectedArea } from '../grid/engine/selection';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Files.module.css';
import { saveFile } from './save-file';

type Choice = ExportFormatName | 'archive' | 'page';

const CHOICES: readonly Choice[] = [...keysOf(EXPORT_FORMATS), 'archive', 'page'];
/** Formats without rules. */
const SEEN: readonly Choice[] = ['csv', 'page'];
/** The export dialog: the range, the format, and what the file will leave out. */
export function ExportPanel({ isMaker }: { readonly isMaker: boolean }) {
  const t = useTranslations('files');
  const choices = isMaker ? CHOICES : SEEN;
  const labels: Record<Choice, string> = {
    ...recordOf(keysOf(EXPORT_FORMATS), (name) => EXPORT_FORMATS[name].words),
    archive: t('archiveEverythingItsHistory'),
    page: t('pagePrintSaveAs'),
  };
  const session = useSession();
  const selection = useSessionState((state) => state.selection);
  const linked = useSessionState(({ frame }) => (frame?.linked ? frame.rowCount - frame.frozenRows : 0));
  const [format, setFormat] = useState<Choice>(isMaker ? 'ooxml' : 'csv');
  const [part, setPart] = useState<'all' | 'selection'>('all');
  const [options, setOptions] = useState(USUAL_CSV);
  const [report, setReport] = useState<{ readonly name: string; readonly report: ExportReport } | null>(null);
  const [error, setError] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const area = selectedArea(selection);
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
        options,
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
      <Radio.Group<Choice> value={format} onChange={choose} label={t('format')}>
        <div className={classes.choices}>
          {choices.map((name) => (
            <Radio key={name} value={name} label={labels[name]} />
          ))}
        </div>
      </Radio.Group>
      {takesPart && (
        <Radio.Group<'all' | 'selection'> value={part} onChange={setPart} label={t('range')}>
          <div className={classes.choices}>
            <Radio value="all" label={t('wholeSheet')} />
            <Radio value="selection" label={t('selectionArea', { area: writeArea(area) })} />
          </div>
        </Radio.Group>
      )}
      {format === 'csv' && <CsvOptions options={options} isMaker={isMaker} onChange={setOptions} />}
      {linked > 0 && (
        <p>
          {t('onlyRecordsHere', { records: linked })}{' '}
          <a href={sheetUrl(session.sheet, 'linked/painted')} download>
            {t('allPaintedRecords')}
          </a>
        </p>
      )}
      {error && <p role="alert">{error}</p>}
      <div>
        {format === 'archive' || format === 'page' ? (
          <ExportLink sheet={session.sheet} as={format} />
        ) : (
          <Button onClick={() => void take()} loading={isBusy}>
            {t('export')}
          </Button>
        )}
      </div>
      {report && <Report {...report} />}
    </div>
  );
}

/** Formats that the server gives, or the browser shows, by an address. */
function ExportLink({ sheet, as }: { readonly sheet: SheetId; readonly as: 'archive' | 'page' }) {
  const t = useTranslations('files');
  return as === 'archive' ? (
    <Button component="a" href={sheetUrl(sheet, 'archive')} download>
      {t('export')}
    </Button>
  ) : (
    <Button component="a" href={sheetPageUrl(sheet, 'paper')} target="_blank">
      {t('openThePage')}
    </Button>
  );
}

/** The fate of the rules, and other notes. */
function Report({ name, report: { rules, notes } }: { readonly name: string; readonly report: ExportReport }) {
  const t = useTranslations('files');
  return (
    <section aria-label={t('whatFile')} className={classes.report}>
      <h3>{t('exportedName', { name })}</h3>
      {notes.map((note) => (
        <p key={note}>{note}.</p>
      ))}
      {rules.length > 0 && (
        <table>
          <thead>
            <tr>
              <th scope="col">{t('rules')}</th>
              <th scope="col">{t('inTheFile')}</th>
              <th scope="col">{t('note')}</th>
            </tr>
          </thead>
          <tbody>
            {fateGroups(rules).map(({ as, note, names }) => (
              <tr key={`${as} ${note}`} data-as={as}>
                <td>
                  <RuleNames names={names} />
                </td>
                <td>{FATE_WORDS[as]}</td>
                <td>{note}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

/** The names of rules: one as it is, several when they are asked for. */
function RuleNames({ names }: { readonly names: readonly string[] }) {
  const t = useTranslations('files');
  if (names.length === 1) return names[0];
  return (
    <details>
      <summary>{t('countRules', { count: names.length })}</summary>
      <ul>
        {names.map((name, at) => (
          <li key={at}>{name}</li>
        ))}
      </ul>
    </details>
  );
}
