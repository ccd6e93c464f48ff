// A page's clock, so much later than this computer's.
{
  const Own = Date;
  globalThis.Date = class extends Own {
    constructor(...given) {
      super(...(given.length > 0 ? given : [Own.now() + BY_MS]));
    }
    static now() {
      return Own.now() + BY_MS;
    }
  };
}
