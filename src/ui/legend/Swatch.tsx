import { useTranslations } from 'use-intl';
import type { Look } from '../../core/looks/look';
import { useTokens } from '../theme/use-tokens';
import { LookSwatch } from './LookSwatch';
import { useLooks } from './use-looks';

interface Props {
  readonly look: Look | null;
  readonly text?: string;
  readonly isSmall?: boolean;
}

/** A look of the open sheet as it really is, on a few characters. */
export function Swatch({ look, text, isSmall = false }: Props) {
  const t = useTranslations('legend');
  const { saved } = useLooks();
  const tokens = useTokens();
  return <LookSwatch look={look} saved={saved} tokens={tokens} text={text ?? t('sample')} isSmall={isSmall} />;
}
