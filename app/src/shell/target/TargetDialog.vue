<script setup lang="ts">
import DialogBox from '../../components/DialogBox.vue';
import TargetPanel from './TargetPanel.vue';
import { useDialogs } from '../../stores/dialogs';

const dialogs = useDialogs();
</script>

<template>
  <dialog-box v-model="dialogs.target" title="Target sheet" width="320px"><TargetPanel /></dialog-box>
</template>
