import { db } from './database';

export async function getSetting<T>(key: string, fallback: T): Promise<T> {
  return ((await db.settings.get(key))?.value as T | undefined) ?? fallback;
}
let settingsUnderWay = 0;
/** Whether a setting is still being written. */
export const settingsPending = (): boolean => settingsUnderWay > 0;
export async function putSetting(key: string, value: unknown): Promise<void> {
  settingsUnderWay++;
  try {
    await db.settings.put({ key, value });
  } finally {
    settingsUnderWay--;
  }
}
