import { Refusal } from '../words';

/** A file cannot be read or written; the sentence says which, why and what to do. */
export class FileError extends Refusal {
  override readonly name = 'FileError';
}
