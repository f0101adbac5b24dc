import type { Purpose } from '../model/profile';

/** Purposes that run for years with nobody beside them, and that others go to. Common practice, no source. */
const SERVES: readonly Purpose[] = ['firewall', 'file store', 'virtual machines', 'music'];

/** Whether a machine for this purpose serves others and is left alone. */
export const serves = (purpose: Purpose): boolean => SERVES.includes(purpose);
