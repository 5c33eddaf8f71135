/** Input that cannot be used: the command ends with exit code 2 and this one line. */
export class BadInput extends Error {
  constructor(place: string, message: string, options?: ErrorOptions) {
    super(`${place}: ${message}`.replace(/\s+/g, ' '), options);
  }
}
