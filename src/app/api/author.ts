/** Until people have accounts, everybody is the owner of every sheet. */
export const AUTHOR = 'owner';
