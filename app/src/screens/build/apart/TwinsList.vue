<script setup lang="ts">
import { type Part, find, sideSuffix } from '@sphalerite/core/model';
import { makeIndependentEdit, type TwinPair } from '@sphalerite/core/project';
import { computed } from 'vue';
import { useSession } from '../../../stores/session';
import { useApart } from './apart-state';
import ActionButton from '../../../components/ActionButton.vue';
import { say } from '../../../words';

/** Left and right parts that are alike, kept alike as mirrored twins, or let go. */
const apart = useApart();
const session = useSession();
const nameOf = (p: Part): string => p.name + sideSuffix(p.side);
const follows = computed(() =>
  session.part?.twin ? find(session.project?.parts ?? [], session.part.twin.source) : null,
);
const followers = computed(() => session.project?.parts.filter((p) => p.twin?.source === session.part?.id) ?? []);
const differs = (p: TwinPair): string => (p.differ.isEmpty ? 'alike' : say('twins.differ', { n: p.differ.count }));
const show = (p: TwinPair): void => session.choose({ part: p.other.id, layer: null });
</script>

<template>
  <section
    v-if="apart.pairs.length > 0 || follows || followers.length > 0"
    class="panel-section"
    aria-label="Left and right"
  >
    <div class="panel-head"><h2>Left and right</h2></div>
    <p v-if="follows" class="quiet">
      “{{ nameOf(session.part!) }}” follows “{{ nameOf(follows) }}”: cubes, pivot and place, both ways.
    </p>
    <action-button v-if="follows" @click="session.apply(makeIndependentEdit, { part: session.part!.id })">
      Make independent
    </action-button>
    <p v-for="f in followers" :key="f.id" class="quiet">“{{ nameOf(f) }}” follows this part.</p>
    <ul v-if="apart.pairs.length > 0" class="pairs">
      <li v-for="p in apart.pairs" :key="p.other.id">
        <action-button look="row" class="name" :tip="`Show ${nameOf(p.other)} and where it differs`" @click="show(p)">
          {{ p.source.name }}<template v-if="p.other.name !== p.source.name"> · {{ p.other.name }}</template>
        </action-button>
        <action-button look="link" class="figures" :class="{ odd: !p.differ.isEmpty }" @click="show(p)">{{
          differs(p)
        }}</action-button>
        <action-button
          :aria-label="`Keep ${p.source.name} alike`"
          tip="The right one becomes the mirror image of the left, from now on"
          @click="apart.twin([p])"
        >
          Keep alike
        </action-button>
      </li>
    </ul>
    <action-button v-if="apart.pairs.length > 1" @click="apart.twin(apart.pairs)">
      Keep all {{ apart.pairs.length }} pairs alike
    </action-button>
  </section>
</template>

<style scoped>
.pairs {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 3px;
}
.pairs li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 6px;
  align-items: center;
  font-size: 12px;
}
.pairs .el-button {
  height: 24px;
  padding: 0 7px;
  font-size: 11.5px;
}
.name.el-button {
  padding: 0;
  font-weight: 500;
  overflow: hidden;
}
.odd.el-button {
  --el-button-text-color: var(--danger);
}
.figures {
  font-size: 11px;
}
</style>
