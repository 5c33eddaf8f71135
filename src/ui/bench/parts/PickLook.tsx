import { FIRST_FAMILY } from '../../../core/looks/first-family';
import type { Look } from '../../../core/looks/look';
import { Swatch } from '../../legend/Swatch';
import { Pick } from './Pick';

interface Props {
  readonly label: string;
  readonly value: Look | null;
  readonly onPick: (look: Look | null) => void;
  /** Offers "no look" too. */
  readonly allowNone?: boolean;
}

/** One of the saved looks. */
export function PickLook({ label, value, onPick, allowNone = false }: Props) {
  const saved = FIRST_FAMILY.find((look) => look.id === value?.look);
  const name = value === null ? 'no look' : (saved?.name ?? 'its own look');
  const options = FIRST_FAMILY.map((look) => ({ id: look.id, words: <LookWords look={{ look: look.id }} name={look.name} /> }));
  return (
    <Pick
      label={label}
      value={saved?.name ?? name}
      shown={value ? <LookWords look={value} name={name} /> : name}
      options={allowNone ? [...options, { id: '', words: 'no look' }] : options}
      onPick={(id) => onPick(id === '' ? null : { look: id })}
    />
  );
}

function LookWords({ look, name }: { readonly look: Look; readonly name: string }) {
  return <Swatch look={look} text={name} />;
}
