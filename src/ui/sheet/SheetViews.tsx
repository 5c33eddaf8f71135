import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { keysOf } from '../../core/values/typed-keys';
import type { SheetId } from '../../core/sheet/ids';
import classes from './SheetViews.module.css';
import { sheetPageUrl } from '../../protocol/sheet-url';

const VIEWS = { sheet: 'sheet', findings: 'findings', history: 'history' } as const;

/** The ways to look at a sheet. */
export function SheetViews({ sheet, view }: { readonly sheet: SheetId; readonly view: keyof typeof VIEWS }) {
  const t = useTranslations('sheet');
  return (
    <nav className={classes.views} aria-label={t('viewsOfTheSheet')}>
      {keysOf(VIEWS).map((each) => (
        <Link
          key={each}
          href={sheetPageUrl(sheet, each === 'sheet' ? undefined : each)}
          aria-current={each === view ? 'page' : undefined}
          prefetch={false}
        >
          {t(VIEWS[each])}
        </Link>
      ))}
    </nav>
  );
}
