/** This window, as the program tells it from others: it does not hear what it did itself. */
export const WINDOW: string = globalThis.crypto?.randomUUID?.() ?? '';
