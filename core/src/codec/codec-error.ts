import { Refusal } from '../words';

/** Bytes are not what they claim to be; the sentence says what and why. */
export class CodecError extends Refusal {
  override readonly name = 'CodecError';
}
