import { REST_POSE, type Pose } from '@sphalerite/core/rig';
import { shallowRef } from 'vue';

/** The pose that the view shows now; set by the frame from the screen that is open. */
export const currentPose = shallowRef<Pose>(REST_POSE);
