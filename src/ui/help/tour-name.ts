/** What the help is open at while the tour is shown. */
export const TOUR = 'tour';
