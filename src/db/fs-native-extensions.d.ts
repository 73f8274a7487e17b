/** The package publishes no types; this is what is used of it. */
declare module 'fs-native-extensions' {
  /** Takes an exclusive lock on an open file; false where another open file has one. Given back when the file is closed. */
  export function tryLock(handle: number): boolean;
}
