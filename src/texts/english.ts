import { actions } from './en/actions';
import { app } from './en/app';
import { bench } from './en/rules/bench';
import { byExample } from './en/rules/by-example';
import { commands } from './en/commands';
import { desk } from './en/desk';
import { examples } from './en/examples';
import { files } from './en/files';
import { fill } from './en/fill';
import { findings } from './en/findings';
import { formula } from './en/rules/formula';
import { grid } from './en/grid';
import { help } from './en/help';
import { history } from './en/history';
import { linked } from './en/linked';
import { importing } from './en/importing';
import { legend } from './en/rules/legend';
import { page } from './en/page';
import { paper } from './en/paper';
import { past } from './en/rules/past';
import { people } from './en/people';
import { programs } from './en/programs';
import { refusals } from './en/refusals';
import { share } from './en/share';
import { sheet } from './en/sheet';
import { start } from './en/start';
import { theme } from './en/theme';
import { trace } from './en/rules/trace';

/** All texts of the interface in English, by place on the screen. Other languages have the same names. */
export const english = {
  actions,
  app,
  bench,
  byExample,
  commands,
  desk,
  examples,
  files,
  fill,
  findings,
  formula,
  grid,
  help,
  history,
  linked,
  importing,
  legend,
  page,
  paper,
  past,
  people,
  programs,
  refusals,
  share,
  sheet,
  start,
  theme,
  trace,
} as const;
