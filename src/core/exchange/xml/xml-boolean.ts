/** An attribute of the type boolean (XML Schema 1.0, part 2, 3.2.2), `otherwise` where it is absent. */
export const isTrue = (value: string | undefined, otherwise = false): boolean =>
  value === undefined ? otherwise : /^(1|true)$/.test(value);
