<script setup lang="ts">
import { IconArrowsRightLeft, IconPlus, IconTrash } from '@tabler/icons-vue';
import { nearestFrame } from '@sphalerite/core/motion';
import { deletePoseEdit, pasteKeysEdit, poseKeys, renamePoseEdit } from '@sphalerite/core/project';
import type { SavedPose } from '@sphalerite/core/model';
import { runCommand } from '../../stores/commands';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useAnimate } from './animate-state';

/** Poses that are kept: a click keys one here, or its mirror image. */
const session = useSession();
const anim = useAnimate();
const notices = useNotices();
function strike(pose: SavedPose, mirrored: boolean): void {
  const clip = session.clip;
  if (!clip) {
    notices.say('Choose or make a clip first; a pose is keyed in a clip.', { kind: 'error' });
    return;
  }
  const copied = poseKeys(pose, session.project!, mirrored),
    at = nearestFrame(clip, anim.time);
  if (!session.apply(pasteKeysEdit, { clip: clip.id, copied, at, what: `${pose.name}${mirrored ? ', mirrored' : ''}` }))
    return;
  // What was struck is in hand, as what was pasted is.
  anim.chosen = copied.keys.map((k) => ({ bone: k.bone, channel: k.channel, time: at }));
}
const value = (e: Event): string => (e.target as HTMLInputElement).value;
</script>

<template>
  <section aria-label="Poses">
    <div class="panel-head tray-head">
      <h2>
        Poses <span class="figures quiet">{{ session.project!.poses.length }}</span>
      </h2>
      <button
        type="button"
        class="bare"
        aria-label="Keep this pose"
        title="Keep this pose · Shift+S"
        :disabled="!session.clip"
        @click="runCommand('anim.keepPose').catch(notices.fail)"
      >
        <IconPlus aria-hidden="true" />
      </button>
    </div>
    <ul class="poses">
      <li v-for="p in session.project!.poses" :key="p.id">
        <input
          class="text"
          :value="p.name"
          :aria-label="`Name of pose ${p.name}`"
          maxlength="120"
          @keydown.stop
          @keydown.enter="($event.target as HTMLElement).blur()"
          @change="session.apply(renamePoseEdit, { pose: p.id, name: value($event) })"
        />
        <button
          type="button"
          class="btn"
          :aria-label="`Strike ${p.name}`"
          title="Key it here"
          @click="strike(p, false)"
        >
          Strike
        </button>
        <button
          type="button"
          class="bare"
          :aria-label="`Strike ${p.name} mirrored`"
          title="Key its mirror image here"
          @click="strike(p, true)"
        >
          <IconArrowsRightLeft aria-hidden="true" />
        </button>
        <button
          type="button"
          class="bare"
          :aria-label="`Delete pose ${p.name}`"
          title="Delete"
          @click="session.apply(deletePoseEdit, { pose: p.id })"
        >
          <IconTrash aria-hidden="true" />
        </button>
      </li>
    </ul>
    <p v-if="session.project!.poses.length === 0" class="quiet hint">
      Shift+S keeps the pose on screen, to strike it again anywhere, on either side.
    </p>
  </section>
</template>

<style scoped>
.poses {
  list-style: none;
  margin: 0;
  padding: 0 8px 8px 12px;
  display: grid;
  gap: 4px;
}
.poses li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 24px 24px;
  gap: 3px;
  align-items: center;
}
.text {
  min-width: 0;
  height: 26px;
  padding: 0 6px;
  border: 1px solid transparent;
  border-radius: 4px;
  background: none;
  font: inherit;
}
.text:hover,
.text:focus {
  border-color: var(--line);
  background: var(--raised);
}
.btn {
  height: 26px;
  padding: 0 8px;
}
.hint {
  padding: 2px 12px 10px;
  font-size: 12px;
}
</style>
