/** What has changed for the page since its last report. */
export type News = 'frame' | 'window' | 'cell' | 'legend' | 'undo' | 'selection' | 'others' | 'link';
