<script setup lang="ts">
import { IconArrowsRightLeft, IconPlus, IconTrash } from '@tabler/icons-vue';
import { nearestFrame } from '@sphalerite/core/motion';
import { deletePoseEdit, pasteKeysEdit, poseKeys, renamePoseEdit } from '@sphalerite/core/project';
import type { SavedPose } from '@sphalerite/core/model';
import { runCommand } from '../../stores/commands';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useAnimate } from './animate-state';
import ActionButton from '../../components/ActionButton.vue';
import IconButton from '../../components/IconButton.vue';
import TextField from '../../components/TextField.vue';
import EmptyState from '../../components/EmptyState.vue';
import { say } from '../../words';

/** Poses that are kept: a click keys one here, or its mirror image. */
const session = useSession();
const anim = useAnimate();
const notices = useNotices();
function strike(pose: SavedPose, mirrored: boolean): void {
  const clip = session.clip;
  if (!clip) {
    notices.say(say('poses.noClip'), { kind: 'error' });
    return;
  }
  const copied = poseKeys(pose, session.project!, mirrored),
    at = nearestFrame(clip, anim.time);
  if (!session.apply(pasteKeysEdit, { clip: clip.id, copied, at, what: `${pose.name}${mirrored ? ', mirrored' : ''}` }))
    return;
  // What was struck is in hand, as what was pasted is.
  anim.chosen = copied.keys.map((k) => ({ bone: k.bone, channel: k.channel, time: at }));
}
</script>

<template>
  <section aria-label="Poses">
    <div class="panel-head tray-head">
      <h2>
        Poses <span class="figures quiet">{{ session.project!.poses.length }}</span>
      </h2>
      <icon-button
        :icon="IconPlus"
        label="Keep this pose"
        keys="Shift+S"
        :disabled="!session.clip"
        @click="runCommand('anim.keepPose').catch(notices.fail)"
      />
    </div>
    <ul class="poses">
      <li v-for="p in session.project!.poses" :key="p.id">
        <text-field
          class="pose-name"
          :model-value="p.name"
          :label="`Name of pose ${p.name}`"
          @change="(name) => session.apply(renamePoseEdit, { pose: p.id, name })"
        />
        <action-button :aria-label="`Strike ${p.name}`" tip="Key it here" @click="strike(p, false)">
          Strike
        </action-button>
        <icon-button
          :icon="IconArrowsRightLeft"
          :label="`Strike ${p.name} mirrored`"
          tip="Key its mirror image here"
          @click="strike(p, true)"
        />
        <icon-button
          :icon="IconTrash"
          :label="`Delete pose ${p.name}`"
          tip="Delete"
          @click="session.apply(deletePoseEdit, { pose: p.id })"
        />
      </li>
    </ul>
    <empty-state
      v-if="session.project!.poses.length === 0"
      text="Shift+S keeps the pose on screen, to strike it again anywhere, on either side."
    />
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
.pose-name:not(:hover):not(:focus-within) {
  --el-input-border-color: transparent;
  --el-input-bg-color: transparent;
}
</style>
