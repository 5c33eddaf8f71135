import { holdsCell } from '../../core/sheet/address';
import type { CSSProperties } from 'react';
import type { Area, SheetFrame, SheetWindow } from '../../protocol/sheet-view';
import { painted, sceneCell, type SceneCell } from '../grid/painter/scene';
import { LookIcon } from '../legend/LookIcon';
import { barCss, paintedCss } from '../painted-css';
import { TOKENS } from '../theme/tokens';
import classes from './Paper.module.css';

/** The rows of a window as a table, each cell in its look. */
export function PaperTable({ frame, window }: { readonly frame: SheetFrame; readonly window: SheetWindow }) {
  const columns = frame.fields.flatMap((field, column) => (field.hidden ? [] : [column]));
  return (
    <div className={classes.wide}>
      <table className={classes.table}>
        <tbody>
          {window.rows.map((position) => (
            <tr key={position}>
              {columns.map((column) => {
                const merged = frame.merges.find((area) => holdsCell(area, column, position));
                const cell = sceneCell(window, column, position);
                if (!cell || (merged && (merged.left !== column || merged.top !== position))) return null;
                return <PaperCell key={column} cell={cell} merged={merged} />;
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function PaperCell({ cell, merged }: { readonly cell: SceneCell; readonly merged: Area | undefined }) {
  const icon = cell.look.properties.icon;
  const Tag = cell.isHeader ? 'th' : 'td';
  return (
    <Tag
      style={cellCss(cell)}
      colSpan={merged ? merged.right - merged.left + 1 : undefined}
      rowSpan={merged ? merged.bottom - merged.top + 1 : undefined}
      title={cell.look.rules.join(', ') || undefined}
    >
      {icon && <LookIcon icon={icon} />}
      {cell.text}
    </Tag>
  );
}

const MAX_LINE_LENGTH = 32;
const ALIGNS = ['start', 'end', 'center'] as const;

function cellCss({ text, look, bar, align, isTotal, isHeader, level }: SceneCell): CSSProperties {
  const css = paintedCss(painted(look), TOKENS.light);
  return {
    textAlign: look.style.align ?? (isHeader ? 'start' : ALIGNS[align]),
    ...(isTotal ? { fontWeight: 650 } : {}),
    // Short texts stay on one line, as they do on the sheet.
    whiteSpace: look.style.wrap || text.length > MAX_LINE_LENGTH ? undefined : 'nowrap',
    ...(level > 0 ? { paddingLeft: 6 + 14 * level } : {}),
    ...css,
    ...(bar ? { backgroundImage: barCss(bar) } : {}),
  };
}
