<script setup lang="ts">
import { sideSuffix } from '@sphalerite/core/model';
import { type Renaming, SAME_NAMES, renameManyEdit, renamings } from '@sphalerite/core/project';
import { computed, ref } from 'vue';
import ActionButton from '../components/ActionButton.vue';
import CheckField from '../components/CheckField.vue';
import DialogBox from '../components/DialogBox.vue';
import FormRow from '../components/FormRow.vue';
import NumberField from '../components/NumberField.vue';
import TextField from '../components/TextField.vue';
import { useDialogs } from '../stores/dialogs';
import { useSession } from '../stores/session';
import { say } from '../words';

/** Many names by one rule, each shown as it is and as it would be. */
const dialogs = useDialogs();
const session = useSession();
const open = ref(true);
// It stays as it was opened while it fades.
const what = dialogs.renameMany!;
const count = what.of === 'swatches' ? what.bytes.length : what.ids.length;
const rule = ref({ ...SAME_NAMES });
const numbered = ref(false);
const first = ref(1);
const meant = computed(() => ({ ...rule.value, from: numbered.value ? first.value : null }));
/** What would change, or why it cannot. */
const outcome = computed((): { list: readonly Renaming[]; wrong: string } => {
  if (!session.project || !open.value) return { list: [], wrong: '' };
  try {
    return { list: renamings(session.project, what, meant.value), wrong: '' };
  } catch (e) {
    return { list: [], wrong: (e as Error).message };
  }
});
/** Whether a name had to give way to one that is there. */
const numberedApart = computed(() => outcome.value.list.some((r) => r.apart));
function rename(): void {
  if (session.apply(renameManyEdit, { what, rule: meant.value })) open.value = false;
}
</script>

<template>
  <dialog-box
    v-model="open"
    :title="say('rename.title', { n: count, of: what.of })"
    width="460px"
    @closed="dialogs.renameMany = null"
  >
    <form class="rule" @submit.prevent="rename">
      <form-row label="called"><text-field v-model="rule.called" label="Called" placeholder="as each is" /></form-row>
      <form-row label="replace"
        ><span class="pair"
          ><text-field v-model="rule.find" label="Replace in names" /><span class="quiet">by</span
          ><text-field v-model="rule.replace" label="By" /></span
      ></form-row>
      <form-row label="put before"><text-field v-model="rule.before" label="Before" /></form-row>
      <form-row label="put behind"><text-field v-model="rule.after" label="Behind" /></form-row>
      <form-row label="count on"
        ><span class="pair"
          ><check-field v-model="numbered">number them</check-field
          ><number-field v-if="numbered" v-model="first" label="from" name="First number" :min="0" /></span
      ></form-row>
      <p v-if="outcome.wrong" class="wrong">{{ outcome.wrong }}</p>
      <p v-else-if="outcome.list.length === 0" class="quiet">No name would change by this yet.</p>
      <ul v-else class="names" aria-label="New names">
        <li v-for="r in outcome.list" :key="r.id">
          <span class="quiet">{{ r.was + sideSuffix(r.side) }}</span><span aria-hidden="true">→</span><b>{{ r.is }}</b>
        </li>
      </ul>
      <p v-if="numberedApart" class="quiet">A name that is taken gets a number.</p>
      <div class="row">
        <action-button look="primary" submit :disabled="outcome.list.length === 0">{{
          say('rename.do', { n: outcome.list.length })
        }}</action-button><action-button @click="open = false">Leave it</action-button>
      </div>
    </form>
  </dialog-box>
</template>

<style scoped>
.rule {
  display: grid;
  gap: 6px;
}
.pair {
  display: flex;
  gap: 8px;
  align-items: center;
}
.names {
  margin: 4px 0 0;
  padding: 6px 8px;
  max-height: 180px;
  overflow-y: auto;
  list-style: none;
  border: 1px solid var(--line);
  border-radius: var(--radius);
}
.names li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto minmax(0, 1fr);
  gap: 8px;
}
.wrong {
  color: var(--danger);
}
</style>
