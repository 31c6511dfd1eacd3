<script setup lang="ts">
import { ElProgress } from 'element-plus';
import 'element-plus/theme-chalk/el-progress.css';
import { framesOf } from '@sphalerite/core/takes';
import { computed } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import CommandButton from '../../components/CommandButton.vue';
import EmptyState from '../../components/EmptyState.vue';
import { useSession } from '../../stores/session';
import { useTakes } from '../../shell/takes/takes';
import { usePictures } from '../../shell/takes/pictures';
import { costOf } from '../../shell/takes/cost';
import { useDraft } from '../../shell/takes/draft';
import TakeCard from './TakeCard.vue';
import { takePlan } from './take-plan';
import OutputPanel from './OutputPanel.vue';
import { useShot } from './shot-in-hand';

const light = usePictures();
const hand = useShot();
const session = useSession();
const takes = useTakes();
/** What became of shots of this project. */
const own = computed(() => takes.takes.filter((t) => t.project === session.project?.id));
const makes = computed(() => hand.shot?.output.makes ?? 'picture');
const plan = computed(() => (session.project && hand.shot ? takePlan(session.project, hand.shot) : ''));
const draft = useDraft();
const output = computed(() => hand.shot?.output);
const count = computed(() =>
  makes.value === 'picture' ? 1 : Math.max(1, framesOf(session.project!, hand.shot!).length),
);
const pace = computed(() => (hand.shot && light.paceOf(hand.shot)) ?? draft.pace);
/** What it will take, told by the draft before anything is begun. */
const cost = computed(() => {
  if (!output.value || !pace.value || output.value.drawn || makes.value === 'sprites') return '';
  return light.tracing || light.calming ? '' : costOf(pace.value, output.value, count.value);
});
const goesOn = computed(
  () => light.grown >= 0 && !light.tracing && !light.calming && light.current !== null && light.canGoOn(light.current),
);
const state = computed(() => {
  const { current } = light;
  if (light.tracing) return `${Math.round(light.progress * 100)} % · ${Math.ceil(light.left)} s left`;
  if (!current) return plan.value || 'ready';
  if (!current.done) return `paused at ${Math.round(current.share * 100)} %; what is there can be saved`;
  return light.calming ? 'taking the noise out…' : `done in ${current.seconds.toFixed(1)} s`;
});
</script>

<template>
  <div class="light-bench">
    <section class="go" aria-label="Tracing">
      <h2>Picture</h2>
      <div class="row">
        <CommandButton v-if="goesOn" id="light.goOn" label text="Go on" look="primary" /><CommandButton
          v-if="!light.tracing && !light.calming"
          id="light.trace"
          :label="!goesOn"
          :look="makes === 'picture' && !goesOn ? 'primary' : 'plain'"
        /><CommandButton v-else id="light.stop" label /><CommandButton id="light.calm" /><CommandButton
          v-if="makes === 'picture'"
          id="light.save"
          label
          text="Save"
        /><CommandButton v-if="makes === 'picture'" id="light.thumbnail" /><CommandButton
          v-else
          id="light.make"
          label
          look="primary"
        />
      </div>
      <el-progress
        :percentage="Math.round(light.progress * 100)"
        :stroke-width="6"
        :show-text="false"
        color="var(--honey)"
        aria-label="Progress of the picture"
      />
      <p class="figures quiet" data-testid="trace-state">{{ state }}</p>
      <p v-if="cost" class="figures quiet" data-testid="cost">{{ cost }}</p>
    </section>
    <OutputPanel v-if="hand.shot" />
    <section class="strip" aria-label="Pictures made">
      <TakeCard v-for="t in own" :key="t.id" :take="t" />
      <div v-for="p in light.pictures" :key="p.id" class="made">
        <action-button
          class="thumb"
          :on="light.current?.id === p.id"
          :tip="`${p.shot.name}, ${p.shot.output.size.join('×')}, ${p.shot.output.samples} samples, ${p.seconds.toFixed(1)} s`"
          @click="light.current = p"
        >
          <img :src="p.url" :alt="`Picture of ${p.shot.name}`" /><small class="figures">{{ p.shot.name }}</small>
        </action-button>
        <action-button
          v-if="hand.shot && light.current?.id === p.id"
          look="bare"
          tip="The shot becomes again as it was for this picture"
          @click="light.takeBack(p)"
          >take back</action-button
        ><action-button
          v-else-if="light.current"
          look="bare"
          :on="light.beside?.id === p.id"
          tip="A slider shows as much as one likes of this picture and of the one that is shown"
          @click="light.beside = light.beside?.id === p.id ? null : p"
          >compare</action-button
        >
      </div>
      <empty-state
        v-if="light.pictures.length + own.length === 0"
        text="Pictures you trace line up here with the settings they were made from."
      />
    </section>
  </div>
</template>

<style scoped>
.light-bench {
  display: grid;
  grid-template-columns: 372px 390px 1fr;
  height: 100%;
}
section {
  padding: 10px 14px;
  min-width: 0;
}
.go {
  display: grid;
  gap: 8px;
  align-content: start;
  border-right: 1px solid var(--line);
}
.strip {
  display: flex;
  gap: 10px;
  overflow: auto;
  align-items: start;
}
.made {
  display: grid;
  flex: none;
  justify-items: start;
}
.thumb.el-button {
  flex: none;
  padding: 4px;
}
.thumb.el-button :deep(> span) {
  display: grid;
  gap: 3px;
}
.thumb img {
  height: 70px;
  min-width: 60px;
  object-fit: cover;
  border-radius: 3px;
  display: block;
}
.thumb small {
  max-width: 130px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  text-align: left;
}
@media (max-width: 1100px) {
  .light-bench {
    grid-template-columns: 330px 370px 1fr;
  }
}
</style>
