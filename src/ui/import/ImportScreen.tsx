'use client';

import { Alert, Button, Select, TextInput } from '@mantine/core';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import type { FilePreview, ReadingChange } from '../../protocol/import-messages';
import { counted } from '../counted';
import { Page } from '../page/Page';
import { ImportClient } from './import-client';
import classes from './Import.module.css';
import { PreviewTable } from './PreviewTable';
import { ReadingForm } from './ReadingForm';
import { sendArchive } from './send-archive';

type Stage = 'reading' | 'looking' | 'packing' | 'sending';
const WORDS: Record<Exclude<Stage, 'looking'>, string> = {
  reading: 'Looking through the file',
  packing: 'Reading it',
  sending: 'Bringing it in',
};

/** What is in a file and how it will be read, before anything of it is kept. */
export function ImportScreen({ file, leave }: { readonly file: File; readonly leave: () => void }) {
  const router = useRouter();
  const client = useRef<ImportClient | null>(null);
  const stop = useRef(new AbortController());
  const [preview, setPreview] = useState<FilePreview | null>(null);
  const [stage, setStage] = useState<Stage>('reading');
  const [progress, setProgress] = useState(0);
  const [refused, setRefused] = useState<string | null>(null);
  const [name, setName] = useState('');

  useEffect(() => {
    const made = new ImportClient(setProgress);
    client.current = made;
    stop.current = new AbortController();
    void made.open(file).then((answer) => {
      if ('refused' in answer) return setRefused(answer.refused);
      setPreview(answer.preview);
      setName(answer.preview.name);
      setStage('looking');
    });
    return () => {
      stop.current.abort();
      made.close();
    };
  }, [file]);

  const begin = (next: Stage) => {
    setProgress(0);
    setRefused(null);
    setStage(next);
  };
  const fail = (why: string) => {
    setRefused(why);
    setStage('looking');
  };
  const change = async (what: ReadingChange) => {
    begin('reading');
    const answer = await client.current!.change(what);
    if ('refused' in answer) return fail(answer.refused);
    setPreview(answer.preview);
    if (what.sheet !== undefined) setName(answer.preview.name);
    setStage('looking');
  };
  /** The id of the imported sheet; undefined where it failed. */
  const become = async (called: string): Promise<string | undefined> => {
    begin('packing');
    const answer = await client.current!.pack(called);
    if ('refused' in answer) return void fail(answer.refused);
    begin('sending');
    const sent = await sendArchive(answer.packed, { progress: setProgress, signal: stop.current.signal });
    if ('answer' in sent) return sent.answer.id;
    if (sent.refused) fail(sent.refused);
  };
  const bringIn = async () => {
    if (name.trim() === '') return setRefused('Give the sheet a name');
    const id = await become(name.trim());
    if (id !== undefined) router.push(`/sheets/${encodeURIComponent(id)}`);
  };
  const bringAllIn = async (count: number) => {
    for (let sheet = 0; sheet < count; sheet++) {
      begin('reading');
      const shown = await client.current!.change({ sheet });
      if ('refused' in shown) return fail(shown.refused);
      setPreview(shown.preview);
      setName(shown.preview.name);
      if (!isBlank(shown.preview) && (await become(shown.preview.name)) === undefined) return;
    }
    router.refresh();
    leave();
  };

  const isWorking = stage !== 'looking';
  return (
    <Page
      title={preview ? `What is in “${file.name}”` : file.name}
      lead={
        preview &&
        `${preview.format}: ${counted(preview.rowCount, 'row')}, ${counted(preview.fields.length, 'field')}. Nothing is kept until you bring it in.`
      }
      width={preview ? 'full' : 'wide'}
    >
      {refused && (
        <Alert
          color="red"
          variant="outline"
          mb={16}
          role="alert"
          title={preview ? 'This could not be done' : 'This file cannot be read'}
        >
          {sentence(refused)}
        </Alert>
      )}
      {!preview && (
        <div className={classes.working}>
          {!refused && <Working words={WORDS.reading} share={progress} />}
          <Button variant="default" onClick={leave}>
            {refused ? 'Back to the sheets' : 'Stop'}
          </Button>
        </div>
      )}
      {preview && (
        <div className={classes.screen}>
          <div className={classes.side}>
            <TextInput
              label="Name of the sheet"
              maxLength={120}
              value={name}
              onChange={({ currentTarget }) => setName(currentTarget.value)}
            />
            {preview.sheets.length > 1 && (
              <Select
                label="Sheet of the file"
                description={
                  isBlank(preview) ? 'there is nothing in this one' : counted(preview.sheets.length, 'sheet')
                }
                data={preview.sheets.map((label, at) => ({ value: String(at), label }))}
                value={String(preview.sheet)}
                allowDeselect={false}
                disabled={isWorking}
                onChange={(value) => value !== null && void change({ sheet: Number(value) })}
              />
            )}
            <div className={classes.acts}>
              <Button onClick={() => void bringIn()} disabled={isWorking || isBlank(preview)}>
                Bring it in
              </Button>
              {preview.sheets.length > 1 && (
                <Button variant="default" onClick={() => void bringAllIn(preview.sheets.length)} disabled={isWorking}>
                  Bring all {preview.sheets.length} in
                </Button>
              )}
              <Button variant="default" onClick={leave}>
                {stage === 'sending' || stage === 'packing' ? 'Stop' : 'Leave it'}
              </Button>
              {isWorking && (
                <Working
                  words={WORDS[stage as Exclude<Stage, 'looking'>]}
                  share={progress}
                  isSent={stage === 'sending' && progress === 1}
                />
              )}
            </div>
            <Facts title="What will be lost" items={preview.losses} none="Nothing that was found in it" />
            {preview.rules.length > 0 && (
              <Facts
                title={counted(preview.rules.length, 'rule')}
                items={preview.rules.map(({ name, sentence: says }) => `${name}: ${says}`)}
              />
            )}
            <div className={classes.reading}>
              <ReadingForm preview={preview} change={(what) => void change(what)} />
            </div>
          </div>
          <PreviewTable preview={preview} change={(what) => void change(what)} />
        </div>
      )}
    </Page>
  );
}

const isBlank = ({ rowCount }: FilePreview): boolean => rowCount === 0;

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
      <span>{isSent ? 'It becomes a sheet' : `${words}, ${percent} %`}</span>
    </>
  );
}

function Facts({
  title,
  items,
  none,
}: {
  readonly title: string;
  readonly items: readonly string[];
  readonly none?: string;
}) {
  return (
    <section>
      <h2 className={classes.heading}>{title}</h2>
      <ul className={classes.facts}>
        {items.map((item, at) => (
          <li key={at}>{item}</li>
        ))}
        {items.length === 0 && <li>{none}</li>}
      </ul>
    </section>
  );
}

const sentence = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1).replace(/\.$/, '')}.`;
