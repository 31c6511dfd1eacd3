<script setup lang="ts">
import { renameProjectEdit } from '@sphalerite/core/project';
import { ref } from 'vue';
import { useSession } from '../stores/session';
import { useDialogs } from '../stores/dialogs';
import ActionButton from '../components/ActionButton.vue';
import TextField from '../components/TextField.vue';
import DialogBox from '../components/DialogBox.vue';

const dialogs = useDialogs();
const session = useSession();
const name = ref(session.project?.name ?? '');
function rename(): void {
  if (session.apply(renameProjectEdit, { name: name.value }) || name.value.trim() === session.project?.name)
    dialogs.rename = false;
}
</script>

<template>
  <dialog-box v-model="dialogs.rename" title="Rename the project" width="380px">
    <form class="row" @submit.prevent="rename">
      <text-field v-model="name" label="Name of the project" eager />
      <action-button look="primary" submit>Rename</action-button>
    </form>
  </dialog-box>
</template>
