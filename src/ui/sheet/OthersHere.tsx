import { UnstyledButton } from '@mantine/core';
import { useTranslations } from 'use-intl';
import type { Texts } from '../../texts/texts';
import { cellAddress } from '../../core/sheet/address';
import type { PresentPerson } from '../../protocol/sheet-view';
import { initialsOf } from '../people/initials';
import { colorOfPerson } from '../theme/tokens';
import classes from './OthersHere.module.css';
import { useSession, useSessionState } from './use-session';

/** People who are shown one by one. */
const MAX_SHOWN = 5;

/** Presence: who else has the sheet open, each in the colour of their selection. A press goes to their cell. */
export function OthersHere() {
  const t = useTranslations('sheet');
  const session = useSession();
  const others = useSessionState((state) => state.others);
  const theme = useSessionState((state) => state.theme);
  if (others.length === 0) return null;
  const more = others.length - MAX_SHOWN;
  return (
    <ul className={classes.others} aria-label={t('peopleHereNow')}>
      {others.slice(0, MAX_SHOWN).map((person, place) => (
        <li key={person.key}>
          <UnstyledButton
            className={classes.person}
            style={{ borderColor: colorOfPerson(theme, place) }}
            aria-label={whereWords(person, t)}
            title={whereWords(person, t)}
            disabled={person.area === null}
            onClick={() => {
              const { area } = person;
              if (area)
                session.show({
                  anchor: { column: area.left, position: area.top },
                  focus: { column: area.right, position: area.bottom },
                });
            }}
          >
            {initialsOf(person.name)}
          </UnstyledButton>
        </li>
      ))}
      {more > 0 && <li className={classes.more}>{t('andMoreMore', { more })}</li>}
    </ul>
  );
}

const whereWords = ({ name, role, area }: PresentPerson, t: Texts<'sheet'>): string =>
  area ? t('nameRoleAtCell', { name, role, cell: cellAddress(area.left, area.top) }) : `${name}, ${role}`;
