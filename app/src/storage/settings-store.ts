import type * as z from 'zod';
import { db } from './database';

/** A setting as `schema` reads it, which has to say what counts where nothing sensible is stored. */
export async function getSetting<T>(key: string, schema: z.ZodType<T>): Promise<T> {
  return schema.parse((await db.settings.get(key))?.value);
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
