/** What an exercise is called, what is to be reached, and what it is for. */
export interface ExerciseWords {
  title: string;
  goal: string;
  lesson: string;
}
const say = (title: string, goal: string, lesson: string): ExerciseWords => ({ title, goal, lesson });

/** By the exercise. */
export const goals: Readonly<Record<string, ExerciseWords>> = {
  'which-drive': say(
    'Which of them holds the scans?',
    'Tie the red flag to the tray that must not be erased.',
    'Names follow the order in which drives answer; the serial stays.',
  ),
  'which-system': say(
    'One that lasts',
    'Choose the system that runs on this machine, and goes on running.',
    'What a system asks for is read before it is fetched.',
  ),
  'the-tray': say(
    'A hall without a shop',
    'Pack what the evening needs, and nothing else.',
    'What is missing at the hall ends the evening.',
  ),
  'three-downloads': say(
    'Three downloads, two lists',
    'Write the one that is what its makers made, and for this machine.',
    'A digest is worth as much as the list, and the list as much as its signature.',
  ),
  'which-stick': say(
    'Four things plugged in',
    'Write the image to a stick that may be lost, and know that it is there.',
    'Size and model are not enough; and a stick may lie.',
  ),
  'start-once': say(
    'Start it once',
    'Start what is on the stick, and leave the machine as it was.',
    'Tap the key from power-on; the menu for once changes nothing.',
  ),
  unsigned: say(
    'It refuses the stick',
    'Start what is on the stick once, and leave the machine as it came.',
    'A refusal is a setting. Write down how it stood, and put it back.',
  ),
  'again-and-again': say(
    'The installer, again and again',
    'Bring the machine to start the system it has, and not its installer.',
    'A stick that stands first and stays in begins anew.',
  ),
  'it-asks': say(
    'It asks where to',
    'Install on the drive that is meant, and lose nothing.',
    'Two that look alike in a list are told apart by their serials.',
  ),
  'it-has-chosen': say(
    'It has chosen already',
    'Install on the drive that is meant, and lose nothing.',
    'What is marked when you arrive is the first that answered.',
  ),
  'it-takes-the-first': say(
    'It takes the first',
    'Install on the drive that is meant, and lose nothing.',
    'Where nobody is asked, every other drive is out.',
  ),
  'it-takes-the-largest': say(
    'It takes the largest',
    'Install on the drive that is meant, and lose nothing.',
    'What matters is often on the largest. It is out before this runs.',
  ),
  'it-looks-different': say(
    'It looks different',
    'Find what is behind it, and do the one cure.',
    'One look that tells much comes before any cure.',
  ),
  'still-there': say(
    'Still there after the power cut',
    'Give the box an address that it has tomorrow as well.',
    'Who sleeps does not answer, and two must not hand out.',
  ),
  'the-gate': say(
    'Guests in the reading room',
    'Narrow the rules until every promise holds, and put them in force.',
    'Try out before it counts; and never shut yourself out.',
  ),
  'one-of-four': say(
    'One of four is gone',
    'Make the pool whole again without losing anything of it.',
    'The serial tells the bay; and while it makes good, it is left alone.',
  ),
  'one-change': say(
    'Does it help?',
    'Find out whether one change helps, and be sure.',
    'One at a time, taking turns, often enough.',
  ),
  'the-old-server': say(
    'Before the old one goes',
    'Bring everything over, and give the old server away with nothing on it.',
    'Restored and counted first; then erased by its kind.',
  ),
};

/** Of an exercise made from a box. */
export const ownGoal = (box: string): ExerciseWords =>
  say(
    `What could go wrong with ${box}`,
    'Install on the drive that is meant, and lose nothing.',
    'It is your machine, with its drives and its installer; only the order they answer in is drawn.',
  );
