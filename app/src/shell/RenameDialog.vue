<script setup lang="ts">
import { renameProjectEdit } from '@sphalerite/core/project';
import { ElDialog } from 'element-plus';
import { ref } from 'vue';
import { useSession } from '../stores/session';
import { useDialogs } from '../stores/dialogs';

const dialogs = useDialogs();
const session = useSession();
const name = ref(session.project?.name ?? '');
function rename(): void {
  if (session.apply(renameProjectEdit, { name: name.value }) || name.value.trim() === session.project?.name)
    dialogs.rename = false;
}
</script>

<template>
  <el-dialog v-model="dialogs.rename" title="Rename the project" width="380px" align-center>
    <form class="row" @submit.prevent="rename">
      <input v-model="name" class="field" aria-label="Name of the project" maxlength="120" autofocus />
      <button type="submit" class="btn primary">Rename</button>
    </form>
  </el-dialog>
</template>

<style scoped>
.field {
  flex: 1;
  height: 30px;
  padding: 0 8px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
}
</style>
