import { sh } from '../../formats/writer/shell';
import type { QuestionCode } from '../../model/tune';
import { formatBoth, formatIec } from '../../units/bytes';
import { formatDay } from '../../units/date';
import { urlPart } from '../../units/url';
import { firstLineTitle, firstWhyWords } from '../firstStart';
import { moveStepWords } from '../moving';
import { stepWords } from '../storage';
import { causeWords } from '../diagnose/causes';
import { counted, plural, within } from '../text';
import { questionTitle } from '../tune';
import { words, type Say } from './say';

/** Where a folder is found from another machine; its name stands for the address where that is not known. */
const shareAddress = (protocol: string, host: string | null, folder: string, path: string): string => {
  const at = host ?? 'the box';
  const byProtocol: Record<string, string> = {
    smb: `smb://${at}/${urlPart(folder)}`,
    nfs: host === null ? `${at}: ${path}` : sh`mount ${`${host}:${path}`} /mnt`.text,
    web: `https://${at}/${urlPart(folder)}/`,
  };
  return byProtocol[protocol] ?? at;
};

/** Steps from the first start on. */
export const afterWords = {
  'first start': ({ line, of, why, set }) =>
    words(firstLineTitle({ code: line, of, why }), {
      exact: set === null || set === '' ? [] : [{ label: 'Set', text: set }],
      why: firstWhyWords(why),
      see:
        line === 'first start'
          ? 'Its own first question, or its prompt.'
          : line === 'updates'
            ? 'Nothing is offered any more.'
            : '',
      wrong:
        line === 'first start'
          ? 'Black: wait as long as is normal, then Enter once, then basic graphics. Nothing is lost.'
          : line === 'password' || line === 'default password'
            ? 'It is refused: another keyboard layout than when it was typed. Try the layout first.'
            : '',
    }),
  'see that nobody answers': ({ address }) =>
    words(`See that nobody answers at ${address}`, {
      exact: [{ label: 'Type', text: sh`ping -c 3 ${address}`.text }],
      why: 'Two machines at one address are both gone, now and then.',
      see: 'No answer, three times.',
      wrong: 'Somebody answers: take another address on Network. Nothing has been changed.',
    }),
  reserve: ({ host, hardware, address, network }) =>
    words(`Reserve ${address} for ${host}`, {
      lines: [`At the router of ${network === '' ? 'the network' : network}.`],
      exact: [
        ...(hardware === null ? [] : [{ label: 'Hardware address', text: hardware }]),
        { label: 'Address', text: address },
      ],
      why: 'After a power cut it comes back at the same place.',
      see: 'The pair in the router’s list.',
      wrong: 'The router refuses it: the address lies in nobody’s range, or is taken.',
    }),
  'set by hand': ({ host, address, bits, gateway, nameServers }) =>
    words(`Set the address of ${host} by hand`, {
      exact: [
        { label: 'Address', text: bits === null ? address : `${address}/${bits}` },
        ...(gateway === null ? [] : [{ label: 'Gateway', text: gateway }]),
        ...(nameServers.length === 0 ? [] : [{ label: 'Name servers', text: nameServers.join(', ') }]),
      ],
      why: 'It serves others, and no router keeps an address for it.',
      see: 'It answers at the new address.',
      wrong: 'It answers nowhere: keyboard and monitor still on it, set it back as noted.',
    }),
  'see it come back': ({ address }) =>
    words(`Restart it, and see it come back at ${address}`, {
      exact: [{ label: 'Type', text: sh`ping ${address}`.text }],
      why: 'An address that holds until the first power cut is none.',
      see: 'It is silent, then answers again within minutes.',
      wrong: 'It does not come back: Network has the rows to ask, one after the other.',
    }),
  'open its page': ({ url, certificate }) =>
    words('Open its page', {
      exact: [{ label: 'Address', text: url }],
      lines: certificate ? ['The browser warns once: its certificate is its own. Note its fingerprint.'] : [],
      why: 'From here on it needs no monitor.',
      see: 'Its sign-in.',
      wrong: 'Nothing is there: look at the port and at http against https.',
    }),
  pool: ({ step, text, erases }) =>
    words(stepWords(step), {
      exact: [{ label: 'Type', text, script: true }],
      why: erases ? 'What is on these drives is lost.' : '',
      see: step === 'state' ? 'Every drive of the pool, none missing.' : 'It ends without an error.',
      wrong: 'It stops: nothing after it was done. Read its last line before anything else.',
    }),
  share: ({ folder, path, protocols }) =>
    words(`Share the folder “${folder}”`, {
      exact: [
        { label: 'Path', text: path },
        { label: 'By', text: protocols.join(', ') },
      ],
      lines: ['Load has the files to write, whole.'],
      why: 'Others reach it, and only those who may.',
      see: 'It opens from another machine, and refuses who may not.',
    }),
  'try the share': ({ folder, path, protocols, host }) =>
    words(`Open “${folder}” from another machine`, {
      exact: protocols.map((p) => ({ label: p.toUpperCase(), text: shareAddress(p, host, folder, path) })),
      lines: ['Once as somebody who may, once as somebody who may not.'],
      why: 'The machine it lies on always reaches it.',
      see: 'It opens, a file goes in and out; the other is refused.',
      wrong: 'It is not found: try its address in place of its name.',
    }),
  'bring the rules': ({ file, to }) =>
    words('Bring the rules onto the gate', {
      exact: [
        { label: 'Type', text: (to === null ? sh`cp ${file} /root/` : sh`scp ${file} root@${to}:`).text },
      ],
      lines: [`Load writes ${file}: a script with the rules and the way back in it.`],
      why: 'What is loaded is what was judged, and not typed anew.',
      see: 'The file lies on the gate.',
    }),
  'load the rules': ({ file, zones, permits, seconds }) =>
    words(`Load the rules: ${plural(zones, 'zone')}, ${plural(permits, 'permit')}`, {
      exact: [{ label: 'Type', text: sh`sh ${file}`.text }],
      lines: [
        `They go back by themselves after ${seconds} seconds, unless you say from a new connection that you are in. Keep a keyboard on it.`,
      ],
      why: 'Everything that is not permitted is refused from here on.',
      see: 'You are still in, and say so.',
      wrong: 'You are out: wait, they go back by themselves.',
    }),
  'keep the rules': ({ file, seconds }) =>
    words('From a new connection, say that they stay', {
      exact: [{ label: 'Type', text: sh`sh ${file} confirm`.text }],
      lines: [`Within ${seconds} seconds, and from a connection that was made after they were loaded.`],
      why: 'An old connection stays up even where no new one gets in.',
      see: '“Kept, and written … for the next start.”',
      wrong: 'You get no new connection: wait, the old rules come back.',
    }),
  'try the rules': ({ promises }) =>
    words('Try every promise from each side', {
      lines: [
        `Load has the list of ${plural(promises.length, 'promise')}: what must get through, and what must not.`,
      ],
      why: 'A rule that was never tried is a hope.',
      see: 'Every line as promised.',
    }),
  'make a guest': ({ guest, memory, cores, disk }) =>
    words(`Make the guest ${guest}`, {
      exact: [
        { label: 'Memory', text: formatIec(memory) },
        { label: 'Cores', text: String(cores) },
        { label: 'Disk', text: formatIec(disk) },
      ],
      why: 'As much of the pot as was decided, and no more.',
      see: 'It starts, and the host still has its share.',
    }),
  'start the guest by itself': ({ guest, place, seconds }) =>
    words(`Let ${guest} start with the host`, {
      exact: [{ label: 'Type', text: sh`virsh autostart ${guest}`.text }],
      lines: [`Its turn is number ${place}, ${seconds} seconds after the one before it.`],
      why: 'After a power cut nobody is there to start it.',
      see: 'It is marked to start by itself.',
    }),
  carry: ({ folder, bytes, files }) =>
    words(`Copy “${folder}” onto it`, {
      exact: [
        { label: 'Files', text: counted(files) },
        { label: 'Bytes', text: formatBoth(bytes) },
      ],
      lines: ['One copy, then the list of sums on both sides.'],
      why: 'Own your content: copy what you are entitled to.',
      see: 'As many files there as here.',
      wrong: 'It breaks off: it can be begun again where it stopped.',
    }),
  move: ({ moving, step, from }) =>
    words(`${moving}: ${moveStepWords(step).title.toLowerCase()}`, {
      lines: [moveStepWords(step).what],
      exact: from === '' ? [] : [{ label: 'From', text: from }],
      why: 'The old one stays whole until the new one is counted.',
      see: step === 'count' ? 'The same figures on both sides.' : '',
      wrong: 'Go back to the old one: it is as it was until the new one has taken over.',
    }),
  'copy of': ({ thing }) =>
    words(`Make a copy of “${thing}”`, {
      lines: ['Onto something that does not hang on the same machine.'],
      why: 'A mirror is not a backup.',
      see: 'Something brought back from the copy, and looked at.',
    }),
  measure: ({ question, runs, planned }) =>
    words(`Measure: ${questionTitle(question as QuestionCode).toLowerCase()}`, {
      lines: ['Tune leads through the runs, in their order.'],
      exact: [{ label: 'Runs', text: `${runs} of ${planned}` }],
      why: 'One change at a time, before and after.',
      see: 'A difference, or that there is none.',
    }),
  cure: ({ cause }) => {
    const { title, because, cure, unharmed } = causeWords(cause);
    return words(`Mend it: ${within(title)}`, {
      lines: cure,
      why: because,
      see: 'It goes on as it should.',
      wrong: unharmed,
    });
  },
  'stick the label on': ({ box, lines }) =>
    words('Stick the label on', {
      exact: lines.map((text, i) => ({ label: i === 0 ? box : 'Answers at', text })),
      lines: ['Network prints it, with its code.'],
      why: 'Whoever stands before it in three years knows what it is.',
      see: 'It can be read without moving the box.',
    }),
  'print the build sheet': () =>
    words('Print the build sheet', {
      lines: ['Keep has it. Into the folder of the house, or under the box.'],
      why: 'Nothing written down means the second machine takes as long as the first.',
      see: 'Machine, decisions, settings and stops on paper.',
    }),
  'password on paper': ({ kept }) =>
    words('Password on paper, or in a manager', {
      exact: kept === null ? [] : [{ label: 'Kept', text: kept }],
      lines: ['Note where it is kept and who knows it; never the password itself.'],
      why: 'It is asked for at every visit.',
      see: 'A second person can say where it is.',
    }),
  'keep the stick': ({ stick }) =>
    words(`Keep “${stick}” with the box`, {
      lines: ['Label it with the system and the day.'],
      why: 'It is the quickest way back.',
      see: 'It lies where the build sheet says.',
    }),
  'note the end of support': ({ system, day }) =>
    words(`${system} is looked after until ${formatDay(day)}`, {
      exact: [{ label: 'Day', text: day }],
      lines: ['Put it in the calendar, with three months before it.'],
      why: 'Afterwards its faults are public and stay open.',
      see: 'The day in the calendar.',
    }),
} satisfies Partial<Say>;
