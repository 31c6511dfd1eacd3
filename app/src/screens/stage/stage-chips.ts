import { IconHandMove, IconLink, IconPlus } from '@tabler/icons-vue';
import { usersOfParts, placementName } from '@sphalerite/core/model';
import type { Chip } from '../../shell/screen';
import { useSession } from '../../stores/session';
import { repeatText, repeatsOf } from './shown';
import { useStage } from './stage-state';

/** Live guides of Stage. @param copies – whether a hand leaves a copy behind */
export function stageChips(copies: boolean): Chip[] {
  const session = useSession();
  const stage = useStage();
  const p = session.placement,
    project = session.project;
  if (stage.placing && project)
    return [
      {
        text: `a click puts down ${placementName(project, { name: '', shows: stage.placing })}`,
        tone: 'resin',
        icon: IconPlus,
        run: () => (stage.placing = null),
        does: 'end',
      },
    ];
  if (stage.stamp)
    return [
      {
        text: `a click puts down the stamp ${stage.stamp.name}`,
        tone: 'resin',
        icon: IconPlus,
        run: () => (stage.stamp = null),
        does: 'end',
      },
    ];
  if (!p || !project) return [];
  const users = p.shows.kind === 'part' ? (usersOfParts(project.scenes).get(p.shows.part) ?? 1) : 1,
    repeat = repeatsOf(session.scene!).get(p.id);
  return [
    ...(users > 1 ? [{ text: `linked: a change shows on ${users}`, tone: 'green' as const, icon: IconLink }] : []),
    ...(repeat ? [{ text: repeatText(repeat), tone: 'green' as const }] : []),
    ...(session.preview && copies ? [{ text: 'a linked copy', tone: 'resin' as const, icon: IconHandMove }] : []),
  ];
}
