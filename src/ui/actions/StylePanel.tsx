import { Button, NumberInput, SegmentedControl } from '@mantine/core';
import {
  IconAlignCenter,
  IconAlignLeft,
  IconAlignRight,
  IconBorderAll,
  IconBorderBottom,
  IconBorderNone,
  IconBorderOuter,
  IconBorderTop,
  IconLayoutAlignBottom,
  IconLayoutAlignMiddle,
  IconLayoutAlignTop,
  IconTextWrap,
} from '@tabler/icons-react';
import type { StylePatch } from '../../core/edit/styles';
import type { BorderSide } from '../../core/looks/look';
import type { Style } from '../../core/looks/style';
import { useSession, useSessionState } from '../sheet/use-session';
import { Act } from './Act';
import classes from './ActionBar.module.css';
import { Swatches } from './Swatches';

const ALIGNS = [
  { align: 'start', label: 'Align left', icon: IconAlignLeft },
  { align: 'center', label: 'Centre', icon: IconAlignCenter },
  { align: 'end', label: 'Align right', icon: IconAlignRight },
] as const;

const STANDS = [
  { stand: 'top', label: 'Align top', icon: IconLayoutAlignTop },
  { stand: 'middle', label: 'Align middle', icon: IconLayoutAlignMiddle },
  { stand: 'bottom', label: 'Align bottom', icon: IconLayoutAlignBottom },
] as const;

/** Tints that carry ink at 4.5 to 1 or better, and inks that read on paper. */
const FILLS = ['#f3ead7', '#e5e2da', '#fde5ac', '#f7d3c8', '#e9d8f0', '#d3e4f6', '#cfe8dc', '#2c3350', '#5a5f69'];
const INKS = ['#22252b', '#5a5f69', '#77200d', '#7a4a00', '#0f4f3c', '#143f6b', '#53235f', '#ffffff'];

const LINE: BorderSide = { style: 'solid', width: 1, color: '#5a5f69' };
const THICK: BorderSide = { style: 'solid', width: 2, color: '#22252b' };

/** How the selected cells look when no rule says otherwise. It stands above the grid and covers none of it. */
export function StylePanel() {
  const session = useSession();
  const isOpen = useSessionState((state) => state.panel === 'style');
  const style = useSessionState((state) => state.cell?.style);
  if (!isOpen) return null;
  const put = (patch: StylePatch) => session.actions.style(patch);
  return (
    <div
      className={classes.shelf}
      role="group"
      aria-label="Style"
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.preventDefault();
        session.openPanel(null);
      }}
    >
      <Swatches label="Fill" colors={FILLS} chosen={style?.fill} onPick={(fill) => put({ fill })} />
      <Swatches label="Text" colors={INKS} chosen={style?.text} onPick={(text) => put({ text })} />
      <AlignActs style={style} put={put} />
      <LetterActs style={style} put={put} />
      <LineActs style={style} put={put} />
      <CellActs />
    </div>
  );
}

interface ActsProps {
  /** The style of the active cell. */
  readonly style: Style | undefined;
  readonly put: (patch: StylePatch) => void;
}

/** How the text stands in its cell. */
function AlignActs({ style, put }: ActsProps) {
  const session = useSession();
  return (
    <div className={classes.row}>
      {ALIGNS.map(({ align, label, icon }) => (
        <Act
          key={align}
          label={label}
          icon={icon}
          isOn={style?.align === align}
          onAct={() => put({ align: style?.align === align ? null : align })}
        />
      ))}
      {STANDS.map(({ stand, label, icon }) => (
        <Act
          key={stand}
          label={label}
          icon={icon}
          isOn={style?.stand === stand}
          onAct={() => put({ stand: style?.stand === stand ? null : stand })}
        />
      ))}
      <Act
        label="Wrap text"
        icon={IconTextWrap}
        isOn={style?.wrap === true}
        onAct={() => void session.actions.wrap(style?.wrap !== true)}
      />
    </div>
  );
}

/** The height and the family of the letters. */
function LetterActs({ style, put }: ActsProps) {
  return (
    <div className={classes.row}>
      <NumberInput
        aria-label="Font size in pixels"
        size="xs"
        w={76}
        min={8}
        max={48}
        suffix=" px"
        value={style?.sizePx ?? 13}
        onChange={(sizePx) => typeof sizePx === 'number' && sizePx >= 8 && sizePx <= 48 && put({ sizePx })}
      />
      <SegmentedControl
        size="xs"
        aria-label="Font"
        value={style?.family ?? 'plain'}
        onChange={(family) => put({ family })}
        data={[
          { value: 'plain', label: 'Plain' },
          { value: 'serif', label: 'Serif' },
          { value: 'fixed', label: 'Fixed' },
        ]}
      />
    </div>
  );
}

/** Lines at the edges of cells. */
function LineActs({ put }: ActsProps) {
  const session = useSession();
  return (
    <div className={classes.row}>
      <Act
        label="All borders"
        icon={IconBorderAll}
        onAct={() => put({ border: { top: LINE, right: LINE, bottom: LINE, left: LINE } })}
      />
      <Act
        label="Thick outline"
        icon={IconBorderOuter}
        onAct={() => void session.actions.editEach((area) => ({ do: 'outline-cells', area, line: THICK }))}
      />
      <Act label="Top border" icon={IconBorderTop} onAct={() => put({ border: { top: LINE } })} />
      <Act label="Bottom border" icon={IconBorderBottom} onAct={() => put({ border: { bottom: LINE } })} />
      <Act label="No borders" icon={IconBorderNone} onAct={() => put({ border: null })} />
    </div>
  );
}

/** What is done with whole cells and their style. */
function CellActs() {
  const session = useSession();
  return (
    <div className={classes.row}>
      <Button variant="default" size="compact-sm" onClick={() => void session.actions.merge()}>
        Merge
      </Button>
      <Button
        variant="default"
        size="compact-sm"
        onClick={() => void session.actions.edit({ do: 'split-cells', area: session.actions.area })}
      >
        Split
      </Button>
      <Button
        variant="default"
        size="compact-sm"
        onClick={() => void session.actions.editEach((area) => ({ do: 'clear-style', area }))}
      >
        Clear formatting
      </Button>
      <Button variant="default" size="compact-sm" onClick={() => session.actions.liftStyle()}>
        Copy style
      </Button>
      <Button variant="default" size="compact-sm" onClick={() => session.actions.layStyle()}>
        Paste style
      </Button>
    </div>
  );
}
