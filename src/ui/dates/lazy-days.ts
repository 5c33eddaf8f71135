import { lazy } from 'react';

/** The calendar and what it is made of arrive when a day is first asked for. */
export const LazyDayInput = lazy(async () => ({ default: (await import('./DayInput')).DayInput }));
export const LazyDayPicker = lazy(async () => ({ default: (await import('./DayPicker')).DayPicker }));
