// Preloaded into the app: its clock jumps by an hour forward and back with each SIGUSR2.
let offsetMs = 0;
const real = Date.now.bind(Date);
const RealDate = Date;
globalThis.Date = class extends RealDate {
  constructor(...given) {
    super(...(given.length ? given : [real() + offsetMs]));
  }
  // Own ones, as others copy what a constructor has by itself.
  static UTC = RealDate.UTC;
  static parse = RealDate.parse;
  static now() {
    return real() + offsetMs;
  }
};
process.on('SIGUSR2', () => (offsetMs = offsetMs === 0 ? 3_600_000 : offsetMs > 0 ? -3_600_000 : 0));
