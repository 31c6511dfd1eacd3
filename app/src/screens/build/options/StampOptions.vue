<script setup lang="ts">
import { type ShelvedStamp, useStampShelf } from '../../../stores/stamp-shelf';
import { useSession } from '../../../stores/session';
import StampShelf from '../../shared/StampShelf.vue';
import { useBuild } from '../build-state';

/** The stamp that strokes put down: one of the project's, or one that is taken into it from a shelf. */
const session = useSession();
const build = useBuild();
const shelf = useStampShelf();
function take(s: ShelvedStamp): void {
  const id = shelf.take(s);
  if (id) build.stamp = id;
}
</script>

<template>
  <div class="stamps">
    <p v-if="(session.project?.stamps.length ?? 0) === 0" class="quiet">
      Take one below, or select something and keep it as a stamp (Ctrl+B).
    </p>
    <StampShelf :chosen="build.stamp ?? session.project?.stamps[0]?.id ?? null" @take="take" />
  </div>
</template>
