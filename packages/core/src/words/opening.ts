import type { NoOpening, Opening, OpeningWhat, WhyOut } from '../opening/forBox';
import type { Supply } from '../machine/power';
import type { PlaceVerdict } from '../opening/place';
import { plural } from './text';

/** Whether a drive goes where it is to go. */
export function placeWords(place: PlaceVerdict): string {
  switch (place.code) {
    case 'fits':
      return `It goes on ${place.where}.`;
    case 'no slot takes it':
      return `No slot takes it: it is ${place.length}, key ${place.key}; there is ${place.slots.join(', ')}.`;
    case 'ports are taken':
      return `All ${place.ports} places of its kind are taken.`;
    case 'does not fit the form':
      return `A 3.5-inch drive has no room in a ${place.form}.`;
    case 'look':
      return place.what === 'its length and key'
        ? 'Its length and key are not known: hold it against the slot before anything is unscrewed.'
        : `How many ${place.what} the machine has is not known: look before anything is unscrewed.`;
  }
}

const SUPPLY: Record<Supply, { title: string; because: string }> = {
  inside: {
    title: 'Mains plug out, then press the power button once',
    because: 'the supply stays closed whatever happens: it holds a charge for long',
  },
  external: {
    title: 'Supply plug out of the machine, then press the power button once',
    because: 'what is left in the board runs off',
  },
  battery: {
    title: 'Charger out',
    because:
      'the battery still feeds it: do not press the power button before the battery plug is off the board',
  },
};

const WHY_OUT: Record<WhyOut, string> = {
  precaution: 'it goes back after the first restart',
  'makes room': 'its place is needed: it stays out',
  'to be written': 'it is written in the adapter, and goes back in',
};

/** A step, with its reason under it. */
export function openingStepWords(what: OpeningWhat): { title: string; because: string } {
  switch (what.code) {
    case 'erase first':
      return {
        title: `Erase “${what.drive}” by its kind`,
        because: 'it held somebody’s data; its page on the shelf has the ways, each with how sure it is',
      };
    case 'power off':
      return { title: 'Power off, from the system', because: 'a machine asleep is not off' };
    case 'unplug the mains':
      return SUPPLY[what.supply];
    case 'look at the cells':
      return {
        title: 'Look whether a cell is swollen',
        because: 'a lifted panel or cover: stop, do not press, take it to battery recycling',
      };
    case 'photograph':
      return {
        title: 'Photograph every cable before you touch it',
        because:
          what.photos > 0
            ? `${plural(what.photos, 'photo')} kept with the machine`
            : 'with marks on what comes off',
      };
    case 'take the cover off':
      return {
        title: `Cover off: ${what.screws === 0 ? 'no screws as a rule' : `about ${plural(what.screws, 'screw')}`}`,
        because: what.ribbons
          ? 'ribbon cables tear: lay the cover beside it, never pull; one screw often stays in the cover'
          : 'one screw often stays in the cover',
      };
    case 'unplug the battery':
      return {
        title: 'Battery plug off the board',
        because: 'else a press on a button starts it in your hands',
      };
    case 'take out':
      return {
        title: `Unplug “${what.drive}”, and label it`,
        because: WHY_OUT[what.why],
      };
    case 'put in':
      return { title: `Put “${what.drive}” in`, because: placeWords(what.place) };
    case 'put in memory':
      return { title: `Put “${what.name}” in`, because: 'by the notch, until both clips close' };
    case 'plug the battery in':
      return { title: 'Battery plug on again', because: '' };
    case 'count the screws':
      return {
        title: 'Cover on, and no screw left over',
        because: what.out === 0 ? 'count them on the tray' : `${what.back} of ${what.out} are back`,
      };
    case 'look in setup':
      return {
        title: 'Look in setup whether it lists its drives',
        because: what.drives.map((d) => `“${d}”`).join(', '),
      };
  }
}

/** What heads the sheet. */
export function openingHeadline(o: Opening | NoOpening): string {
  if ('code' in o)
    return o.code === 'no machine'
      ? 'Which machine is opened?'
      : 'The machine stays closed: nothing goes in or out';
  const moves = [
    ...(o.goesOut.length > 0 ? [`${o.goesOut.map((s) => `“${s.name}”`).join(' and ')} out`] : []),
    ...(o.goesIn.length > 0 ? [`${o.goesIn.map((s) => `“${s.name}”`).join(' and ')} in`] : []),
  ];
  return o.left === 0
    ? `${o.machine} is closed again`
    : `${o.machine} is opened: ${moves.join(', ') || 'memory in'}, about ${Math.ceil(o.left)} min`;
}
