/** The edit was refused: the sentence says why and what to do. Nothing has changed. */
export class EditError extends Error {
  override readonly name = 'EditError';
}
