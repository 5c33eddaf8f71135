import { UnstyledButton } from '@mantine/core';
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
  const session = useSession();
  const others = useSessionState((state) => state.others);
  const theme = useSessionState((state) => state.theme);
  if (others.length === 0) return null;
  const more = others.length - MAX_SHOWN;
  return (
    <ul className={classes.others} aria-label="People here now">
      {others.slice(0, MAX_SHOWN).map((person, place) => (
        <li key={person.key}>
          <UnstyledButton
            className={classes.person}
            style={{ borderColor: colorOfPerson(theme, place) }}
            aria-label={whereWords(person)}
            title={whereWords(person)}
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
      {more > 0 && <li className={classes.more}>and {more} more</li>}
    </ul>
  );
}

const whereWords = ({ name, role, area }: PresentPerson): string =>
  `${name}, ${role}${area ? `, at ${cellAddress(area.left, area.top)}` : ''}`;
