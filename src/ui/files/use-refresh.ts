import { useState } from 'react';
import { messageOf } from '../../core/values/error-message';
import type { NewerFile, RefreshPreview } from '../../protocol/engine-messages';
import { useSession } from '../sheet/use-session';

/** The refresh of a sheet from a newer file: the file, its key, what would be different, and doing it. */
export function useRefresh() {
  const session = useSession();
  const [file, setFile] = useState<{ readonly name: string; readonly newer: NewerFile } | null>(null);
  const [key, setKey] = useState<readonly string[]>([]);
  const [removes, setRemoves] = useState(false);
  const [preview, setPreview] = useState<RefreshPreview | null>(null);
  const [isDone, setDone] = useState(false);
  const [error, setError] = useState<string | null>(null);

  const guarded = async (work: () => Promise<void>) => {
    setError(null);
    await work().catch((failed: unknown) => setError(messageOf(failed)));
  };
  const look = (how: { readonly key: readonly string[]; readonly removes: boolean }) =>
    guarded(async () => {
      setKey(how.key);
      setRemoves(how.removes);
      setDone(false);
      setPreview(how.key.length ? await session.ask({ kind: 'refresh', how, do: false }) : null);
    });
  const read = (chosen: File | null) =>
    guarded(async () => {
      if (!chosen) return;
      setFile(null);
      setPreview(null);
      const newer = await session.ask({ kind: 'read-newer', file: chosen });
      setFile({ name: chosen.name, newer });
      await look({ key: newer.key, removes: false });
    });
  const refresh = () =>
    guarded(async () => {
      setPreview(await session.ask({ kind: 'refresh', how: { key, removes }, do: true }));
      setDone(true);
    });
  return { file, key, removes, preview, isDone, error, look, read, refresh };
}
