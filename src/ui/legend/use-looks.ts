import { useMemo } from 'react';
import type { Look } from '../../core/looks/look';
import { looksById, sheetLooks, type NamedLook } from '../../core/sheet/sheet-looks';
import type { LookPart } from '../../core/sheet/sheet-part';
import { useSessionState } from '../sheet/use-session';

const NONE: readonly LookPart[] = [];

/** The looks of the open sheet in the theme that is on, in order and by id. */
export function useLooks(): { readonly looks: readonly NamedLook[]; readonly saved: Readonly<Record<string, Look>> } {
  const theme = useSessionState((state) => state.theme);
  const parts = useSessionState((state) => state.frame?.looks) ?? NONE;
  return useMemo(() => {
    const looks = sheetLooks(parts, theme);
    return { looks, saved: looksById(looks) };
  }, [parts, theme]);
}
