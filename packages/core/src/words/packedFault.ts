import type { PackedFaultReason } from '../model/imageFinding';

/** Why a packed file cannot be unpacked, that it is unharmed, and what to do. */
export function packedFaultWords(fault: PackedFaultReason): string {
  switch (fault.code) {
    case 'damaged':
      return 'The packed data is damaged or cut short. The file itself is unharmed; fetch it again.';
    case 'xz check not read':
      return 'This .xz file is made with a check or filter that cannot be read here (SHA-256, say). The file is unharmed; unpack it with a tool of your system and open what comes out.';
    case 'locked':
      return 'This archive is locked with a password. Unpack it and open what is inside.';
    case 'method not read':
      return 'This archive is packed by a method that is not read here. Unpack it and open what is inside.';
    case 'scattered':
      return 'What is inside lies so scattered that it cannot be read without unpacking. The file is unharmed; unpack it and open what comes out.';
    case 'several images':
      return `This archive holds ${fault.names.length} images (${fault.names.join(', ')}). Unpack it and open the one you want.`;
    case 'no image among them':
      return `This archive holds ${fault.files} files, none of them named like a disk image. Unpack it and open the one you want.`;
  }
}
