/** The partition's GUID in a boot entry's path, in lower case: HD(1,GPT,GUID,0x800,0x100000) (UEFI 2.10 §10.3.5.1, §10.6). */
export const guidIn = (path: string): string | null =>
  /HD\(\d+,GPT,([0-9a-f-]{36})/i.exec(path)?.[1]?.toLowerCase() ?? null;

/** The signature of an MBR disk in a boot entry's path, as `0x` and eight digits: HD(1,MBR,0x12345678,…) (same sections). */
export const signatureIn = (path: string): string | null => {
  const digits = /HD\(\d+,MBR,0x([0-9a-f]{1,8})\b/i.exec(path)?.[1];
  return digits === undefined ? null : `0x${digits.toLowerCase().padStart(8, '0')}`;
};

/** The loader a boot entry names, with slashes: File(\EFI\x\y.efi), or without “File” in older versions; empty where none. */
export function loaderIn(path: string): string {
  const named = /File\(([^)]*)\)/i.exec(path)?.[1] ?? /\)\/(\\[^/]*)$/.exec(path)?.[1] ?? '';
  return named.replaceAll('\\', '/');
}

/** Is it the path that firmware looks for where no entry names a loader (UEFI 2.10 §3.5.1.1)? */
export const isFallbackLoader = (path: string): boolean =>
  /^\/EFI\/BOOT\/BOOT(IA32|X64|ARM|AA64|RISCV64)\.EFI$/i.test(path);
