import { useId } from 'react';
import { type Editing } from '../sheet/session-state';
import type { PaintedLook, ShownField } from '../../protocol/sheet-view';
import { painted, type SceneCell } from '../grid/painter/scene';
import { selectCell } from '../grid/engine/selection';
import { paintedCss } from '../painted-css';
import { useTokens } from '../theme/use-tokens';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Fill.module.css';
import { useJudged } from './use-judged';

interface Props {
  readonly field: ShownField;
  readonly column: number;
  readonly position: number;
  readonly cell: SceneCell;
}

const NOT_JUDGED = { properties: {}, rules: [], style: {} } as const;

/** One open cell as an input, in its look, with the words for its outcome. */
export function FillInput({ field, column, position, cell }: Props) {
  const session = useSession();
  const id = useId();
  const editing = useSessionState((state) =>
    state.editing?.column === column && state.editing.position === position && state.editing.place === 'line'
      ? state.editing
      : null,
  );
  const look = useLook(cell, editing);
  const tokens = useTokens();
  const says = look.rules.join(', ');
  const begin = () => {
    session.select(selectCell({ column, position }));
    session.beginEdit('line', cell.text);
  };
  const common = {
    id,
    className: classes.input,
    style: paintedCss(painted(look), tokens),
    'aria-describedby': `${id}-says`,
    'data-says': says || undefined,
  };
  return (
    <div className={classes.answer}>
      <label htmlFor={id} className={classes.label}>
        {field.label}
      </label>
      {field.allowed ? (
        <select
          {...common}
          value={cell.text}
          onChange={(event) =>
            void session.ask({ kind: 'enter', cell: { column, position }, input: event.currentTarget.value })
          }
        >
          <option value="" />
          {field.allowed.map((value) => (
            <option key={value}>{value}</option>
          ))}
        </select>
      ) : (
        <input
          {...common}
          value={editing ? editing.text : cell.text}
          autoComplete="off"
          autoCapitalize="none"
          enterKeyHint="next"
          onFocus={begin}
          onChange={(event) => session.type(event.currentTarget.value)}
          // Viewing alone enters nothing: the content may hold more than it shows.
          onBlur={() => editing && (editing.text === cell.text ? session.cancelEdit() : session.commit())}
        />
      )}
      <span id={`${id}-says`} className={classes.says} aria-live="polite">
        {says}
      </span>
    </div>
  );
}

/** The look of an answer: as it was judged, or while another is typed as that one would be. */
function useLook(cell: SceneCell, editing: Editing | null): PaintedLook {
  const judged = useJudged(editing);
  if (judged) return { properties: judged.properties, rules: judged.says, style: {} };
  // How the last answer was judged says nothing of the one that is being typed.
  return editing !== null && editing.text !== cell.text ? NOT_JUDGED : cell.look;
}
