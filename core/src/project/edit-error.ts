import { Refusal } from '../words';

/** The edit was refused: the sentence says why and what to do. Nothing has changed. */
export class EditError extends Refusal {
  override readonly name = 'EditError';
}
