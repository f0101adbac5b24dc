import { updateBox } from '@zb/core/acts/box';
import { bootLadder } from '@zb/core/starting/ladder';
import type { Rung } from '@zb/core/starting/rung';
import { assumptionWords, ladderHeadline, rungRemedy, rungTitle, rungWords } from '@zb/core/words/ladder';
import { menuSchoolWords, usualKeysWords } from '@zb/core/words/startBy';
import { knownFact } from '@zb/core/model/known';
import type { FactKey } from '@zb/core/model/facts';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { Facts } from '../../parts/Facts';
import { LogEntryForm } from '../../parts/LogEntryForm';
import { Mark, type MarkKind } from '../../parts/Marks';
import { useAct } from '../../storage/hooks';

const KEYS: readonly FactKey[] = [
  'firmware.mode',
  'firmware.bits',
  'firmware.offers',
  'firmware.secureBoot',
  'firmware.order',
  'firmware.setupKey',
  'firmware.menuKey',
  'firmware.startsUsb',
  'firmware.startsNvme',
  'firmware.graphicsMemory',
  'firmware.afterPowerCut',
  'firmware.haltsOn',
];
const MARK: Record<Rung['state'], MarkKind> = {
  started: 'yes',
  refused: 'stop',
  skipped: 'no',
  'not reached': 'no',
  tried: 'ask',
};

function FirmwarePage({ context }: { context: BoxContext }) {
  const { bench, box, machine } = context;
  const act = useAct();
  if (!machine) {
    return (
      <BoxFrame context={context} stop="firmware" headline="What will it start? Choose a machine first">
        <p>The boot ladder follows the machine’s firmware. Take a machine at Survey.</p>
      </BoxFrame>
    );
  }
  const ladder = bootLadder(bench, box, machine);
  const keysOpen = !knownFact(machine, 'firmware.setupKey') || !knownFact(machine, 'firmware.menuKey');
  const by = (startBy: 'menu' | 'order'): void =>
    void act(
      updateBox(
        box,
        { startBy },
        startBy === 'menu' ? 'Start by the one-time menu' : 'Start by the boot order',
      ),
    );
  return (
    <BoxFrame context={context} stop="firmware" headline={ladderHeadline(ladder)}>
      <div className="two wide-left">
        <div className="stack">
          <fieldset style={{ border: 0, padding: 0, margin: 0 }}>
            <legend className="h6" style={{ padding: 0 }}>
              How the stick is to be started
            </legend>
            <label className="row" style={{ justifyContent: 'flex-start' }}>
              <input type="radio" name="by" checked={box.startBy === 'menu'} onChange={() => by('menu')} />
              <span>
                <b>One-time menu</b>, order untouched
                <span className="sub">{menuSchoolWords(knownFact(machine, 'firmware.order')?.value)}</span>
              </span>
            </label>
            <label className="row" style={{ justifyContent: 'flex-start' }}>
              <input type="radio" name="by" checked={box.startBy === 'order'} onChange={() => by('order')} />
              <span>
                <b>Boot order</b>
                <span className="sub">
                  For machines without a menu. With the stick first and left in, the machine enters the
                  installer again at every restart.
                </span>
              </span>
            </label>
          </fieldset>
          <div>
            <h2 className="h6">Boot ladder: the next start, read from the top</h2>
            <ol className="ladder" aria-label="Boot ladder">
              {ladder.rungs.map((r) => (
                <li
                  key={rungTitle(r.entry)}
                  className={r.state === 'started' ? 'reached' : r.state === 'not reached' ? 'dim' : ''}
                >
                  <Mark kind={MARK[r.state]}>{r.state}</Mark>
                  <span>
                    <b>{rungTitle(r.entry)}</b>
                    <span className="sub">{rungWords(r.why)}</span>
                    {r.remedy && <span className="sub">→ {rungRemedy(r)}</span>}
                  </span>
                </li>
              ))}
            </ol>
          </div>
          {ladder.assumed.map(assumptionWords).map((a) => (
            <p key={a} className="said said-check">
              {a}
            </p>
          ))}
        </div>
        <div className="stack">
          <Facts machine={machine} only={KEYS} />
          {keysOpen && <p className="sub">{usualKeysWords(machine.form)}</p>}
          <LogEntryForm box={box} stop="firmware" kinds={['setting', 'photo']} />
        </div>
      </div>
    </BoxFrame>
  );
}

export default withBox(FirmwarePage);
