import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { FilePreview, ReadingChange } from '../../protocol/import-messages';
import { ImportClient } from './import-client';
import { sendArchive } from './send-archive';
import { sheetPageUrl } from '../../protocol/sheet-url';

/** What is under way: reading the file, looking at the preview, making the archive, or sending it. */
export type Stage = 'reading' | 'looking' | 'packing' | 'sending';

export const isBlank = ({ rowCount }: FilePreview): boolean => rowCount === 0;

/** Reads a file in its worker, and imports it as a sheet, or each of its sheets as one. `leave` goes back. */
export function useImport(file: File, leave: () => void) {
  const t = useTranslations('importing');
  const router = useRouter();
  const client = useRef<ImportClient | null>(null);
  const stop = useRef(new AbortController());
  const [preview, setPreview] = useState<FilePreview | null>(null);
  const [stage, setStage] = useState<Stage>('reading');
  const [progress, setProgress] = useState(0);
  const [refused, setRefused] = useState<string | null>(null);
  const [name, setName] = useState('');

  useEffect(() => {
    const made = new ImportClient(setProgress, t);
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
  }, [file, t]);

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
    const sent = await sendArchive(answer.packed, { progress: setProgress, signal: stop.current.signal, t });
    if ('answer' in sent) return sent.answer.id;
    if (sent.refused) fail(sent.refused);
  };
  const bringIn = async () => {
    if (name.trim() === '') return setRefused(t('giveSheetName'));
    const id = await become(name.trim());
    if (id !== undefined) router.push(sheetPageUrl(id));
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

  return { preview, stage, progress, refused, name, setName, change, bringIn, bringAllIn };
}
