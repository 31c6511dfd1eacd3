import { EN } from './en';
import { type Params, speaker } from './speaker';

const say = speaker(EN);

/** Something was refused: `code` and `params` say what, so that it can be told in any language; `message` tells it in this one. */
export abstract class Refusal extends Error {
  constructor(
    readonly code: keyof typeof EN,
    readonly params: Params = {},
  ) {
    super(say(code, params));
  }
}
