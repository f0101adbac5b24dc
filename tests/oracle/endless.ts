/** A machine that writes for ever: 64 sectors at a time by the BIOS (INT 13h, function 43h), ever further. `bytes` long. */
export function writesForEver(bytes = 64 * 2 ** 20): Buffer {
  const image = Buffer.alloc(bytes);
  const code =
    'fa31c08ed88ec08ed0bc007cfb' +
    'be217cb443b000cd13' +
    '668106297c40000000' +
    'ebec' +
    '10004000008000000100000000000000';
  image.write(code, 'hex');
  image.writeUInt16LE(0xaa55, 510);
  return image;
}
