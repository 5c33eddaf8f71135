import { useTranslations } from 'use-intl';
import { ReaderLegend } from '../legend/ReaderLegend';
import legend from '../legend/Legend.module.css';
import { useSession, useSessionState } from './use-session';

/** The legend of a viewer: what each look means. A rule that is pressed lights its cells. */
export function ReaderSide() {
  const t = useTranslations('sheet');
  const session = useSession();
  const meanings = useSessionState((state) => state.meanings);
  const rule = useSessionState((state) => state.spotlight);
  return (
    <nav className={legend.legend} aria-label={t('legend')}>
      <div className={legend.head}>
        <h2 className={legend.title}>{t('legend')}</h2>
      </div>
      <div className={legend.reading}>
        <ReaderLegend meanings={meanings} lit={{ rule, onLight: (id) => session.rules.spotlight(id) }} />
      </div>
    </nav>
  );
}
