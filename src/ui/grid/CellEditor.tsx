import { Suspense, useState } from 'react';
import { useTranslations } from 'use-intl';
import { isFormulaInput } from '../../core/values/is-formula-input';
import { LazyFormulaEditor } from '../formula/lazy-formula-editor';
import type { Editing } from '../sheet/session-state';
import { useSession, useSessionState } from '../sheet/use-session';
import { ChoiceEditor } from './ChoiceEditor';
import type { Box } from './engine/geometry';
import { useJudged } from '../fill/use-judged';
import { paintedCss } from '../painted-css';
import { useTokens } from '../theme/use-tokens';
import classes from './CellEditor.module.css';
import { painted } from './painter/scene';
import { useEditorKeys } from './use-editor-keys';

interface Props {
  readonly editing: Editing;
  readonly box: Box;
  readonly onMove: (columns: number, rows: number) => void;
}

/**
 * The cell being typed in, over its painted place. Enter and Tab take what was typed and move on; Escape lets it go.
 */
export function CellEditor({ editing, box, onMove }: Props) {
  const t = useTranslations('grid');
  const session = useSession();
  // A formula stays in its editor, also while its first character is deleted.
  const [isFormula, setFormula] = useState(false);
  if (!isFormula && isFormulaInput(editing.text)) setFormula(true);
  const place = { left: box.x - 1, top: box.y - 1, height: box.height + 1 };
  const allowed = useSessionState((state) =>
    editing.position < (state.frame?.frozenRows ?? 0) ? undefined : state.frame?.fields[editing.column]?.allowed,
  );
  const plainPlace = { ...place, width: Math.max(box.width + 1, 90) };
  const plain = allowed ? (
    <ChoiceEditor text={editing.text} allowed={allowed} style={plainPlace} onMove={onMove} />
  ) : (
    <PlainEditor editing={editing} style={plainPlace} onMove={onMove} />
  );
  if (!isFormula) return plain;
  const leave = (columns: number, rows: number) => {
    if (session.commit(true)) onMove(columns, rows);
    return true;
  };
  return (
    <Suspense fallback={plain}>
      <LazyFormulaEditor
        label={t('cellContent')}
        className={`${classes.editor} ${classes.formula}`}
        style={{
          ...place,
          minWidth: Math.max(box.width + 1, 180),
          lineHeight: `${box.height - 3}px`,
        }}
        keys={{ enter: (step) => leave(0, step), tab: (step) => leave(step, 0), escape: () => session.cancelEdit() }}
      />
    </Suspense>
  );
}

interface PlainProps {
  readonly editing: Editing;
  readonly style: { readonly left: number; readonly top: number; readonly width: number; readonly height: number };
  readonly onMove: Props['onMove'];
}

function PlainEditor({ editing, style, onMove }: PlainProps) {
  const t = useTranslations('grid');
  const session = useSession();
  const judged = useJudged(editing);
  const tokens = useTokens();
  const look = judged
    ? paintedCss(painted({ properties: judged.properties, rules: judged.says, style: {} }), tokens)
    : {};
  const { input, onKeyDown } = useEditorKeys(onMove);

  return (
    <input
      ref={input}
      className={classes.editor}
      aria-label={t('cellContent')}
      value={editing.text}
      style={{ ...style, ...look }}
      title={judged?.says.join(', ') || undefined}
      data-says={judged?.says.join(', ') || undefined}
      onChange={(event) => session.type(event.currentTarget.value, event.currentTarget.selectionStart ?? undefined)}
      onKeyDown={onKeyDown}
      onBlur={() => session.commit()}
    />
  );
}
