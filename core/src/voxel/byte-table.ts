/** How many values a cell may have: 0 for an empty one, else a palette byte. */
export const BYTE_VALUES = 256;

/** A table with a number for each value; 0 unless said. */
export const byteTable = (of: (byte: number) => number = () => 0): Uint8Array<ArrayBuffer> =>
  Uint8Array.from({ length: BYTE_VALUES }, (_, byte) => of(byte));

/** The table in which every value stays as it is. */
export const sameBytes = (): Uint8Array<ArrayBuffer> => byteTable((byte) => byte);
