import type { PracticeTable } from '../table';

/** What this exercise says. */
export const threeDownloads: PracticeTable = {
  downloads: 'In the folder',
  lists: 'Lists of digests',
  'head file': 'File',
  'head digest': 'SHA-256',
  'head list': 'List',
  'head signature': 'Signature',
  'list beside': 'The list beside the downloads',
  'list signed': 'The list from its makers’ own page',
  'signature good': 'good, by its makers’ key',
  'no signature': 'none',
  'paper processor': 'The machine is x86-64.',
  'a machine you can trust': 'a machine you can trust',
  'act compute': 'Compute the digest of {name}',
  'act write this': 'Write {name}',
  'act read list': 'Read: {on}',
  'act check signature': 'Check the signature: {on}',
  beside: 'the list beside the downloads',
  signed: 'the makers’ list',
  'signed it is': 'The makers’ list is signed by their key.',
  'unsigned it is': 'The list beside the downloads is signed by nobody.',
  'wrote a changed one': [
    'What was written is not what its makers published.',
    'It agrees with the list that lay beside it, and whoever changed the one changed the other. The makers’ list differs in four digits in the middle.',
  ],
  'wrote for another processor': [
    '{name} is for another processor.',
    'Its digest is right; it does not start here all the same.',
  ],
  'wrote unchecked': [
    '{name} was the right one, by luck.',
    'Its digest was not compared with the list of its makers.',
  ],
  'signature not checked': [
    'The signature of the list was not looked at.',
    'A list is worth as much as what says whose it is.',
  ],
  'wrote the right one': '{name} was written: whole, unchanged, and for this machine.',
  'hint signature': 'Check whose list is signed.',
  'hint list': 'Read the list that is signed.',
  'hint compute': 'Compute the digest of {name}.',
  'hint whole digest':
    'Compare the whole digest, not its ends. Write the one that is in the signed list for x86-64.',
};
