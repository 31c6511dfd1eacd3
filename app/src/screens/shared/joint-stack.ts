/** Pixels within which two clicks are at the same place. */
const SAME = 4;
const NOWHERE = { x: -1, y: -1, bone: '' };

/**
 * Joints that lie on one another under the pointer: what is in hand is kept, else the first is taken, and every further click
 * at the same place takes the next.
 */
export function jointStack() {
  let pressed: { readonly joints: readonly string[]; readonly bone: string; readonly again: boolean } | null = null;
  let last = NOWHERE;
  return {
    /** The joint that a press on some takes. */
    press(p: { readonly x: number; readonly y: number }, joints: readonly string[], inHand: string | null): string {
      const bone = inHand !== null && joints.includes(inHand) ? inHand : joints[0]!;
      const again = bone === inHand && last.bone === bone && Math.hypot(p.x - last.x, p.y - last.y) < SAME;
      pressed = { joints, bone, again };
      last = { x: p.x, y: p.y, bone };
      return bone;
    },
    /** The hand lets go without a drag: the joint that this click takes instead, null for none. */
    release(): string | null {
      const was = pressed;
      pressed = null;
      if (!was?.again || was.joints.length < 2) return null;
      const next = was.joints[(was.joints.indexOf(was.bone) + 1) % was.joints.length]!;
      last = { ...last, bone: next };
      return next;
    },
    /** What is dragged was meant. */
    dragged(): void {
      pressed = null;
      last = NOWHERE;
    },
  };
}
