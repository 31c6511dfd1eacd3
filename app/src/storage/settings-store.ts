import { db } from './database';

export async function getSetting<T>(key: string, fallback: T): Promise<T> {
  return ((await db.settings.get(key))?.value as T | undefined) ?? fallback;
}
let tell: (error: Error) => void = () => undefined;
/** Who is told when a setting could not be kept; it counts until the page is left. */
export const onSettingLost = (listener: (error: Error) => void): void => void (tell = listener);
let settingsUnderWay = 0;
/** Whether a setting is still being written. */
export const settingsPending = (): boolean => settingsUnderWay > 0;
export async function putSetting(key: string, value: unknown): Promise<void> {
  settingsUnderWay++;
  try {
    await db.settings.put({ key, value });
  } catch (e) {
    tell(e as Error);
  } finally {
    settingsUnderWay--;
  }
}
