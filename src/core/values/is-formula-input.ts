/** Whether what was typed in a cell is a formula. */
export const isFormulaInput = (input: string): boolean => /^\p{White_Space}*=/u.test(input);
