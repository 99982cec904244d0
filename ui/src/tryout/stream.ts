/** listen hears nothing: on this page nobody else changes anything. */
export const listen = (): (() => void) => () => undefined;
