import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { IconFlag } from '@tabler/icons-react';
import { memo } from 'react';
import { useTranslations } from 'use-intl';
import type { Look } from '../../core/looks/look';
import { kindOf } from '../../core/rules/kinds/registry';
import type { LegendEntry } from '../../protocol/sheet-view';
import { useSession, useSessionState } from '../sheet/use-session';
import shared from './Legend.module.css';
import classes from './LegendItem.module.css';
import { RuleMenu } from './RuleMenu';
import { Swatch } from './Swatch';

interface Props {
  readonly entry: LegendEntry;
  readonly place: number;
  readonly count: number;
}

/** The looks that an entry stands for: the rule's own, or those of its outcomes. */
const looksOf = ({ rule }: LegendEntry): readonly Look[] => {
  const looks = kindOf(rule.when).outcomeLooks(rule.when) ?? [rule.look ?? null];
  return looks.filter((look) => look !== null);
};

/** One rule of the legend. The engine sends all entries when one has changed; only that one is rendered. */
export const LegendItem = memo(function LegendItem({ entry, place, count }: Props) {
  const t = useTranslations('legend');
  const session = useSession();
  const isOpen = useSessionState((state) => state.bench?.draft.id === entry.id);
  const isChosen = useSessionState((state) => state.chosen.includes(entry.id));
  const { rules } = session;
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: entry.id,
  });
  return (
    <li
      ref={setNodeRef}
      className={shared.entry}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      data-open={isOpen}
      data-off={!entry.rule.on}
      data-dragging={isDragging}
      data-chosen={isChosen}
      data-grouped={entry.rule.group !== undefined}
      data-rule={entry.id}
    >
      <button
        ref={setActivatorNodeRef}
        type="button"
        className={shared.grip}
        {...attributes}
        {...listeners}
        aria-label={t('moveNameNowPlace', { name: entry.rule.name, place: place + 1, count })}
      >
        {place + 1}
      </button>
      <button
        type="button"
        className={shared.open}
        onClick={(event) => (event.ctrlKey || event.metaKey ? rules.toggleChosen(entry.id) : rules.openRule(entry.id))}
        title={entry.sentence}
        aria-pressed={isOpen}
      >
        <Face entry={entry} />
      </button>
      <RuleMenu entry={entry} place={place} count={count} />
    </li>
  );
}, isSame);

/** The looks, the name and the counts of a rule. */
function Face({ entry }: { readonly entry: LegendEntry }) {
  const t = useTranslations('legend');
  const looks = looksOf(entry);
  const numbers = entry.isCounting ? t('counting') : t('matchedOfRead', { matched: entry.matched, read: entry.read });
  return (
    <>
      <span className={classes.swatches} aria-hidden>
        {looks.length <= 1 ? (
          <Swatch look={looks[0] ?? null} />
        ) : (
          looks.slice(0, 4).map((look, at) => <Swatch key={at} look={look} text="9.1" isSmall />)
        )}
      </span>
      <span className={shared.name}>
        {entry.rule.name || t('newRule')}
        {entry.isPersonal && <span className={classes.personal}> {t('onlyYou')}</span>}
      </span>
      <span className={classes.count} data-testid="count">
        {entry.problem ? (
          <>
            <IconFlag size={12} aria-hidden /> {entry.problem.message}
          </>
        ) : entry.rule.on ? (
          numbers
        ) : (
          t('off')
        )}
      </span>
      {entry.rule.note && <span className={shared.note}>{entry.rule.note}</span>}
      <span className={shared.bar} aria-hidden>
        <span style={{ width: `${entry.read ? (100 * entry.matched) / entry.read : 0}%` }} />
      </span>
    </>
  );
}

function isSame(one: Props, other: Props): boolean {
  return (
    one.place === other.place && one.count === other.count && JSON.stringify(one.entry) === JSON.stringify(other.entry)
  );
}
