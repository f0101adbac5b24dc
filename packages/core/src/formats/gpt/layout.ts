/** Signature of a header, and where its fields stand: UEFI 2.10 §5.3.2, table 5.5. */
export const GPT_SIGNATURE = 'EFI PART';
export const GPT_HEADER = {
  revision: 8,
  headerBytes: 12,
  crc: 16,
  own: 24,
  alternate: 32,
  firstUsable: 40,
  lastUsable: 48,
  diskGuid: 56,
  array: 72,
  count: 80,
  entryBytes: 84,
  arrayCrc: 88,
  /** Bytes of the header as the standard has it. */
  bytes: 92,
} as const;

/** Where the fields of an entry stand: UEFI 2.10 §5.3.3, table 5.6; the name is UTF-16 of so many units. */
export const GPT_ENTRY = {
  type: 0,
  guid: 16,
  first: 32,
  last: 40,
  attributes: 48,
  name: 56,
  nameUnits: 36,
  bytes: 128,
} as const;

/** Partition type GUIDs used here: UEFI 2.10 table 5.7 for the EFI system partition; the others common practice. */
export const ESP_GUID = 'C12A7328-F81F-11D2-BA4B-00A0C93EC93B';
export const BIOS_BOOT_GUID = '21686148-6449-6E6F-744E-656564454649';
export const BASIC_DATA_GUID = 'EBD0A0A2-B9E5-4433-87C0-68B6B72699C7';
/** Of the Discoverable Partitions Specification (UAPI.2). */
export const LINUX_DATA_GUID = '0FC63DAF-8483-4772-8E79-3D69D8477DE4';
export const LINUX_SWAP_GUID = '0657FD6D-A4AB-43C4-84E5-0933C84B4F4F';
/** Bytes of the array of entries, at the front and at the end, as every maker writes it (UEFI 2.10 §5.3.1: at least). */
export const GPT_ARRAY_BYTES = 16_384;
