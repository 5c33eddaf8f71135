'use client';

import { Alert, Button, Select, TextInput } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { FoundRules } from './FoundRules';
import { LossList } from './LossList';
import type { FilePreview } from '../../protocol/import-messages';
import { Page } from '../page/Page';
import shared from './Import.module.css';
import classes from './ImportScreen.module.css';
import { tooLargeHere } from './page-memory';
import { PreviewTable } from './PreviewTable';
import { ReadingForm } from './ReadingForm';
import { isBlank, useImport, type Stage } from './use-import';

const WORDS = {
  reading: 'readingFile',
  packing: 'converting',
  sending: 'uploading',
} as const satisfies Record<Exclude<Stage, 'looking'>, string>;

/** The contents of a file and how it will be read, before anything of it is kept. */
export function ImportScreen({ file, leave }: { readonly file: File; readonly leave: () => void }) {
  const t = useTranslations('importing');
  const work = useImport(file, leave);
  const { preview, progress, refused, change } = work;
  return (
    <Page
      title={preview ? t('previewOfName', { name: file.name }) : file.name}
      lead={
        preview &&
        t('formatRowCountRowsCount', {
          format: preview.format,
          rowCount: preview.rowCount,
          count: preview.fields.length,
        })
      }
      width={preview ? 'full' : 'wide'}
    >
      {refused && (
        <Alert
          color="red"
          variant="outline"
          mb={16}
          role="alert"
          title={preview ? t('theImportFailed') : t('fileCannotRead')}
        >
          {sentence(refused)}
        </Alert>
      )}
      {!preview && (
        <div className={classes.working}>
          {!refused && <Working words={t(WORDS.reading)} share={progress} />}
          <Button variant="default" onClick={leave}>
            {refused ? t('backToTheSheets') : t('stop')}
          </Button>
        </div>
      )}
      {preview && (
        <div className={shared.screen}>
          <Side preview={preview} work={work} leave={leave} />
          <PreviewTable preview={preview} change={(what) => void change(what)} />
        </div>
      )}
    </Page>
  );
}

interface SideProps {
  readonly preview: FilePreview;
  readonly work: ReturnType<typeof useImport>;
  readonly leave: () => void;
}

/** What becomes of the file: the sheet's name, what is brought in, what is lost, and how it is read. */
function Side({ preview, work, leave }: SideProps) {
  const t = useTranslations('importing');
  const { stage, name, setName, change } = work;
  const isWorking = stage !== 'looking';
  return (
    <div className={shared.side}>
      <TextInput
        label={t('nameOfTheSheet')}
        maxLength={120}
        value={name}
        onChange={({ currentTarget }) => setName(currentTarget.value)}
        onKeyDown={({ key, nativeEvent: { isComposing } }) =>
          key === 'Enter' && !isComposing && !isWorking && !isBlank(preview) && void work.bringIn()
        }
      />
      {preview.sheets.length > 1 && (
        <Select
          label={t('sheetInTheFile')}
          description={isBlank(preview) ? t('thisOneIsEmpty') : t('countSheets', { count: preview.sheets.length })}
          data={preview.sheets.map((label, at) => ({ value: String(at), label }))}
          value={String(preview.sheet)}
          allowDeselect={false}
          disabled={isWorking}
          onChange={(value) => value !== null && void change({ sheet: Number(value) })}
        />
      )}
      <SizeWarning preview={preview} />
      <Acts preview={preview} work={work} leave={leave} />
      <LossList losses={preview.losses} />
      {preview.rules.length > 0 && <FoundRules rules={preview.rules} />}
      <div className={shared.reading}>
        <ReadingForm preview={preview} change={(what) => void change(what)} />
      </div>
    </div>
  );
}

/** Says so before the import where the sheet would be too much for this device. */
function SizeWarning({ preview }: { readonly preview: FilePreview }) {
  const t = useTranslations('importing');
  const tooLarge = tooLargeHere(preview);
  return (
    tooLarge && (
      <Alert color="dark" variant="outline" title={t('tooLargeForDevice')}>
        {t('sheetNeedsMemory', { ...tooLarge })}
      </Alert>
    )
  );
}

function Acts({ preview, work, leave }: SideProps) {
  const t = useTranslations('importing');
  const { stage, progress } = work;
  const isWorking = stage !== 'looking';
  return (
    <div className={classes.acts}>
      <Button onClick={() => void work.bringIn()} disabled={isWorking || isBlank(preview)}>
        {t('import')}
      </Button>
      {preview.sheets.length > 1 && (
        <Button variant="default" onClick={() => void work.bringAllIn(preview.sheets.length)} disabled={isWorking}>
          {t('importAllLengthSheets', { length: preview.sheets.length })}
        </Button>
      )}
      <Button variant="default" onClick={leave}>
        {stage === 'sending' || stage === 'packing' ? t('stop') : t('cancel')}
      </Button>
      {stage !== 'looking' && (
        <Working words={t(WORDS[stage])} share={progress} isSent={stage === 'sending' && progress === 1} />
      )}
    </div>
  );
}

/** `isSent`: all of it is with the server, which does not tell how far it is. */
function Working({
  words,
  share,
  isSent = false,
}: {
  readonly words: string;
  readonly share: number;
  readonly isSent?: boolean;
}) {
  const t = useTranslations('importing');
  const percent = Math.round(share * 100);
  return (
    <>
      <div
        className={classes.bar}
        role="progressbar"
        aria-label={words}
        aria-valuenow={percent}
        aria-valuemin={0}
        aria-valuemax={100}
      >
        <span style={{ width: `${percent}%` }} />
      </div>
      <span>{isSent ? t('creatingTheSheet') : `${words}, ${percent} %`}</span>
    </>
  );
}

const sentence = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1).replace(/\.$/, '')}.`;
