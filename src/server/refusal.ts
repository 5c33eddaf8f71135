/** Why a change or a request cannot be taken, in words for the person who made it. */
export class Refusal extends Error {
  constructor(
    readonly code:
      | 'no-sheet'
      | 'row-gone'
      | 'field-gone'
      | 'row-exists'
      | 'bad-request'
      | 'sign-in'
      | 'not-allowed'
      | 'locked'
      | 'too-often'
      | 'too-long'
      | 'too-busy'
      | 'too-costly',
    message: string,
  ) {
    super(message);
  }
}
