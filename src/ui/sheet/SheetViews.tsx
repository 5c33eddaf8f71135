import Link from 'next/link';
import { keysOf } from '../../core/values/typed-keys';
import type { SheetId } from '../../core/sheet/ids';
import classes from './SheetViews.module.css';
import { sheetPageUrl } from '../../protocol/sheet-url';

const VIEWS = { sheet: 'Sheet', findings: 'Findings', history: 'History' } as const;

/** The ways to look at a sheet. */
export function SheetViews({ sheet, view }: { readonly sheet: SheetId; readonly view: keyof typeof VIEWS }) {
  return (
    <nav className={classes.views} aria-label="Views of the sheet">
      {keysOf(VIEWS).map((each) => (
        <Link
          key={each}
          href={sheetPageUrl(sheet, each === 'sheet' ? undefined : each)}
          aria-current={each === view ? 'page' : undefined}
          prefetch={false}
        >
          {VIEWS[each]}
        </Link>
      ))}
    </nav>
  );
}
