import 'element-plus/theme-chalk/el-message-box.css';
import { ElMessageBox } from 'element-plus/es/components/message-box/index.mjs';
import { say } from '../words';

/** Asks whether to leave although the last work could not be saved; true when the artist means it. */
export const askToLeave = (): Promise<boolean> =>
  ElMessageBox.confirm(say('save.leaving'), 'Not everything is saved', {
    confirmButtonText: 'Stay',
    cancelButtonText: 'Leave without it',
    distinguishCancelAndClose: true,
    type: 'warning',
    autofocus: false,
  }).then(
    () => false,
    // Closing it in any other way means staying.
    (how: string) => how === 'cancel',
  );
