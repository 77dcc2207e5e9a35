declare module 'fs-native-extensions' {
  /** Requests an exclusive lock of the operating system; false where another process holds it. */
  export function tryLock(descriptor: number): boolean;
  export function unlock(descriptor: number): void;
}
