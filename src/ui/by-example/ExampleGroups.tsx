import { ActionIcon, Button } from '@mantine/core';
import { IconPlus, IconX } from '@tabler/icons-react';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { fieldsWords } from '../../core/rules/shape/sentence-words';
import type { CellTold } from '../../protocol/by-example';
import { Swatch } from '../legend/Swatch';
import type { Wanted } from '../sheet/example-actions';
import type { ByExample } from '../sheet/session-state';
import { useSession, useSessionState } from '../sheet/use-session';
import shared from '../bench/Bench.module.css';
import classes from './ByExample.module.css';

/** Looks that examples may have. */
const MAX_LOOKS = 5;

/** The cells pointed at, by what they are to show. */
export function ExampleGroups({ byExample }: { readonly byExample: ByExample }) {
  const t = useTranslations('byExample');
  const session = useSession();
  const { examples, filled, told } = byExample;
  if (filled) return <FillPart byExample={byExample} />;
  return (
    <div className={classes.examples} role="group" aria-label={t('examples')}>
      {examples.wanted.map(({ look }, at) => (
        <ExampleGroup key={at} as={at} cells={told?.wanted[at] ?? []} title={t('highlight')}>
          <Swatch look={look} isSmall />
        </ExampleGroup>
      ))}
      <ExampleGroup as="none" cells={told?.unwanted ?? []} title={t('leaveAsTheyAre')} />
      {examples.wanted.length < MAX_LOOKS && (
        <button type="button" className={classes.link} onClick={() => session.examples.addLook()}>
          {t('anotherLook')}
        </button>
      )}
    </div>
  );
}

interface ExampleGroupProps {
  readonly as: Wanted;
  readonly cells: readonly CellTold[];
  readonly title: string;
  readonly children?: ReactNode;
}

function ExampleGroup({ as, cells, title, children }: ExampleGroupProps) {
  const t = useTranslations('byExample');
  const session = useSession();
  return (
    <section className={classes.group} aria-label={title}>
      <h3 className={classes.groupTitle}>
        {children}
        {title}
        <span className={shared.spacer} />
        <Button
          size="compact-xs"
          variant="default"
          leftSection={<IconPlus size={12} stroke={1.5} />}
          onClick={() => void session.examples.point(as)}
        >
          {t('addTheSelection')}
        </Button>
      </h3>
      <ul className={classes.chips}>
        {cells.map((told) => (
          <li key={`${told.cell.row} ${told.cell.field}`} className={classes.chip}>
            <button
              type="button"
              className={classes.chipText}
              aria-label={t('showCell', { address: told.address })}
              onClick={() => void session.goTo(told.cell)}
            >
              <b>{told.address}</b> {told.shown || t('blank')}
            </button>
            <ActionIcon
              variant="subtle"
              color="ink"
              size={22}
              aria-label={t('removeExample', { address: told.address })}
              onClick={() => session.examples.remove(told.cell)}
            >
              <IconX size={12} stroke={1.5} />
            </ActionIcon>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The fill that is explained. */
function FillPart({ byExample: { filled, examples } }: { readonly byExample: ByExample }) {
  const t = useTranslations('byExample');
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  if (!filled) return null;
  const { count } = filled;
  return (
    <div className={classes.examples}>
      <p className={classes.filled}>
        <Swatch look={examples.wanted[0]?.look ?? null} isSmall />{' '}
        {filled.isRecord
          ? t('recordsFilledByHand', { count })
          : t('cellsFilledByHand', { count, fields: fieldsWords(fields, filled.fields, 'and') })}
      </p>
    </div>
  );
}
