import * as z from 'zod';

/** What a shot becomes, and how long is spent on it. */
export interface Output {
  readonly size: readonly [number, number];
  /** Most samples a pixel. */
  readonly samples: number;
  /** Whether noise that is left is taken out. */
  readonly denoise: boolean;
  /** Whether what is behind things is left out. */
  readonly transparent: boolean;
}

export const MOST_EDGE = 8192;
export const MOST_SAMPLES = 65_536;

export const DEFAULT_OUTPUT: Output = { size: [640, 400], samples: 32, denoise: true, transparent: false };

export const makeOutput = (more: Partial<Output>): Output => ({ ...DEFAULT_OUTPUT, ...more });

const pixels = z.int().min(1).max(MOST_EDGE);
export const outputSchema = z.strictObject({
  size: z.tuple([pixels, pixels]),
  samples: z.int().min(1).max(MOST_SAMPLES),
  denoise: z.boolean(),
  transparent: z.boolean(),
});
