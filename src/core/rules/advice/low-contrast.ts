import { contrastRatio, READABLE } from '../../looks/contrast';
import { lookValue } from '../../looks/look';
import { readableText } from '../../looks/readable-text';
import { replaced, type Adviser } from './advice';
import { outcomeLooks } from './outcome-looks';

/** The text of a cell that no rule touches, over a sheet that is nearly white. */
const INK = '#22252b';
const SHEET = '#ffffff';

/** A look whose text is hard to read on its fill. */
export const lowContrast: Adviser = (context) =>
  outcomeLooks(context).flatMap(({ rule, name, look, properties, ground }) => {
    const text = lookValue(properties, 'text');
    if (ground === undefined && text === undefined) return [];
    const contrast = contrastRatio(text ?? INK, ground ?? SHEET);
    if (contrast >= READABLE || properties.get('hideValue') === true) return [];
    const stored = context.stored.find(({ id }) => id === rule)!;
    const better = ground === undefined ? INK : readableText(ground);
    return [
      {
        rules: [rule],
        cells: [],
        message: `The text of “${name}” is hard to read: its contrast is ${contrast.toFixed(1)} : 1, and 4.5 : 1 is needed.`,
        repair: stored.rule.look === look ? [replaced(stored, { look: { ...look, text: better } })] : null,
      },
    ];
  });
