import type { SnmpLogin } from '@/core';
import { snmpLoginSchema } from '@/wire';
import type { ConsoleContext } from '../console/console-context';
import { seal, unseal } from '../console/sealed';

const settingOf = (siteId: string, target: string) => `snmp ${siteId} ${target.toLowerCase()}`;

/**
 * The login for a device of an office: the one that was just given, which is kept sealed for the next time, else the one of last
 * time. Null: none was ever given.
 */
export async function snmpLogin(
  { store, signingKey }: ConsoleContext,
  siteId: string,
  target: string,
  given: SnmpLogin | undefined,
): Promise<SnmpLogin | null> {
  const name = settingOf(siteId, target);
  if (given !== undefined) {
    await store.keeping.setSetting(name, seal(signingKey, JSON.stringify(given)));
    return given;
  }
  const sealed = await store.keeping.setting(name);
  const text = typeof sealed === 'string' ? unseal(signingKey, sealed) : null;
  return text === null ? null : (snmpLoginSchema.safeParse(JSON.parse(text)).data ?? null);
}
