import { lazy } from 'react';

const load = () => import('./HelpPanel');
const loadTour = () => import('./Tour');

/** The help and the tour, which are fetched apart from the page. */
export const LazyHelp = lazy(load);
export const LazyTour = lazy(loadTour);

/** Fetches both ahead of time, so that they open without a connection too. */
export const prepareHelp = (): void => void Promise.all([load(), loadTour()]);
