import { useSession } from './session';

/** What a command wants before it can run: `true`, or what is missing, as it goes on after "cannot be done now:". */
export type Need = () => true | string;

export const need =
  (met: () => boolean, why: string): Need =>
  () =>
    met() || why;
/** Several, told one at a time. */
export const all =
  (...needs: readonly Need[]): Need =>
  () => {
    for (const n of needs) {
      const r = n();
      if (r !== true) return r;
    }
    return true;
  };

export const needsProject = need(() => useSession().project !== null, 'no project is open');
export const needsWriting = need(() => useSession().writable, 'another window works on this project');
export const needsPart = need(() => useSession().part !== null, 'choose a part first');
export const needsPalette = need(() => useSession().palette !== null, 'the project has no palette');
export const needsBone = need(() => useSession().bone !== null, 'choose a bone first');
export const needsBones = need(() => (useSession().project?.rig.bones.length ?? 0) > 0, 'there are no bones yet');
export const needsParts = need(() => (useSession().project?.parts.length ?? 0) > 0, 'there are no parts yet');
export const needsClip = need(() => useSession().clip !== null, 'choose a clip first, or make one');
export const needsScene = need(() => useSession().scene !== null, 'make a scene first');
export const needsPlacement = need(() => useSession().placement !== null, 'choose what stands in the scene first');
export const needsShot = need(() => useSession().shot !== null, 'choose a shot first, or make one');
export const needsColourways = need(
  () => (useSession().project?.colourways.length ?? 0) > 0,
  'there are no colourways yet',
);
