import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { isSingle, selectCell } from '../../grid/engine/selection';
import { useSession, useSessionState } from '../../sheet/use-session';

const NOTHING = { text: '', by: '', exact: false, pattern: false, painted: '' };

/** What is looked for and replaced, and the actions that do it: from one match to the next, or all at once. */
export function useFind() {
  const t = useTranslations('actions');
  const session = useSession();
  const [wanted, setWanted] = useState(NOTHING);
  // Where several cells were selected, only those are looked through, wherever the selection goes afterwards.
  const [area] = useState(() => (isSingle(session.get().selection) ? undefined : session.actions.area));
  const [message, setMessage] = useState('');
  const legend = useSessionState((state) => state.legend);
  const meanings = useSessionState((state) => state.meanings);
  const { text, by, exact, pattern, painted } = wanted;
  const search = { text, exact, pattern, ...(area ? { area } : {}), ...(painted ? { painted } : {}) };

  const next = async () => {
    const found = await session.actions.find(search);
    if (!found) return;
    const { column, position } = session.get().selection.anchor;
    const after = found.findIndex(
      (cell) => cell.position > position || (cell.position === position && cell.column > column),
    );
    const at = after < 0 ? 0 : after;
    const nothing = area ? t('notFoundSelection') : t('notFound');
    setMessage(found.length ? t('atOfFoundCells', { at: at + 1, found: found.length }) : nothing);
    if (found[at]) session.show(selectCell(found[at]));
  };
  const replaceAll = async () => {
    const found = await session.actions.find(search);
    await session.actions.edit({ do: 'replace-text', ...search, by });
    if (found) setMessage(t('replacedInFoundCells', { found: found.length }));
  };

  return {
    wanted,
    /** The rules by whose look a search can be narrowed. */
    rules: session.isMaker ? legend.map(({ id, rule }) => ({ id, name: rule.name })) : meanings,
    isEmpty: text === '' && painted === '',
    message,
    area,
    put: (part: Partial<typeof NOTHING>) => setWanted((before) => ({ ...before, ...part })),
    next,
    replaceAll,
  };
}
