import { useState } from 'react';
import type { StickFault, VirtualStick } from '@zb/core/model/standIns';
import type { GuardedTarget } from '@zb/core/write/guard';
import { predictInstall } from '@zb/core/write/install';
import { usbLinks } from '@zb/core/machine/links';
import { predictTimes, unknownStick } from '@zb/core/write/time';
import type { Bench, Box, ImageItem } from '@zb/core/model/bench';
import { formatBoth, MIB } from '@zb/core/units/bytes';
import { formatRate, formatSpan } from '@zb/core/units/duration';
import { unitsExplained } from '@zb/core/words/sizes';
import { Primary, Quiet } from '../../ui/Button';
import { BeforeAfter } from './Target';

const FAULTS: { name: string; make: (bytes: number) => StickFault; is: (f: StickFault) => boolean }[] = [
  { name: 'none', make: () => ({}), is: (f) => Object.keys(f).length === 0 },
  {
    name: 'lies about its capacity',
    make: (bytes) => ({ realBytes: Math.max(MIB, Math.floor(bytes / 2)) }),
    is: (f) => f.realBytes !== undefined,
  },
  {
    name: 'has a weak place',
    make: (bytes) => ({ weakAt: Math.floor(bytes * 0.6) }),
    is: (f) => f.weakAt !== undefined,
  },
  { name: 'is pulled out half-way', make: () => ({ pulledAt: 0.5 }), is: (f) => f.pulledAt !== undefined },
];

/** What is foretold of a write: both halves as ranges, the link that holds it up, and why. */
function Foretold({
  bench,
  box,
  choice,
  bytes,
}: {
  bench: Bench;
  box: Box;
  choice: GuardedTarget;
  bytes: number;
}) {
  const { link } = choice.target;
  const install = predictInstall(bench, box);
  const times = predictTimes(
    bytes,
    choice.known ?? unknownStick(choice.target.serial),
    bench.log,
    link && usbLinks[link],
  );
  return (
    <details className="why">
      <summary>Foretold: {formatSpan(times.whole.value)}</summary>
      <p className="sub">
        Writing {formatSpan(times.write.value)}, reading back {formatSpan(times.verify.value)}.
        {times.slowest &&
          ` The slowest link is ${times.slowest.name}: ${formatRate(times.slowest.bytesPerSecond)} at most, ${times.slowest.because}.`}
      </p>
      <p className="sub">{times.whole.because.join('; ')}</p>
      {install && (
        <p className="sub">
          Installing from it waits {formatSpan(install.value)}: {install.because[0]}.
        </p>
      )}
    </details>
  );
}

/** The picked stick: before and after, the last four of its serial to type, what is foretold, and its faults to practise. */
export function Confirm({
  bench,
  box,
  image,
  bytes,
  choice,
  stick,
  haveBytes,
  onLocal,
  onWrite,
  onFault,
  onProbe,
}: {
  bench: Bench;
  box: Box;
  image: ImageItem;
  /** What reaches the stick. */
  bytes: number;
  choice: GuardedTarget;
  stick: VirtualStick;
  haveBytes: boolean;
  onLocal: (file: File) => void;
  onWrite: (tail: string) => void;
  onFault: (fault: StickFault) => void;
  onProbe: () => void;
}) {
  const [tail, setTail] = useState('');
  const [meant, setMeant] = useState(false);
  const units = unitsExplained(choice.target.bytes);
  return (
    <div className="two wide-left">
      <BeforeAfter guarded={choice} imageBytes={bytes} imageName={image.name} />
      <div className="stack" style={{ gap: 8 }}>
        {!haveBytes && (
          <label className="said said-check">
            After a reload the browser forgets which file was open. Open {image.name} again:
            <input
              type="file"
              aria-label={`Open ${image.name} again`}
              onChange={(e) => {
                const file = e.target.files?.[0];
                if (file) onLocal(file);
              }}
            />
          </label>
        )}
        <p>
          All of stick <b className="m">…{choice.tail}</b> will be lost. Read the serial off the stick and
          type its <b>last four</b>:
        </p>
        {choice.large && (
          <label className="said said-check">
            <input type="checkbox" checked={meant} onChange={(e) => setMeant(e.target.checked)} /> This target
            is large: {formatBoth(choice.target.bytes)}. It is the one that is meant.
          </label>
        )}
        <form
          className="actions"
          onSubmit={(e) => {
            e.preventDefault();
            if (!choice.large || meant) onWrite(tail);
          }}
        >
          <input
            className="in mono"
            aria-label="Last four of the serial"
            style={{ width: 96, fontSize: 16 }}
            maxLength={4}
            value={tail}
            onChange={(e) => setTail(e.target.value.toUpperCase())}
            autoComplete="off"
          />
          <Primary type="submit" disabled={tail !== choice.tail || !haveBytes || (choice.large && !meant)}>
            Write and compare
          </Primary>
        </form>
        {tail.length === 4 && tail !== choice.tail && (
          <p role="alert" style={{ color: 'var(--stop)' }}>
            That is not this stick’s serial. Look again before you go on.
          </p>
        )}
        <Foretold bench={bench} box={box} choice={choice} bytes={bytes} />
        <details className="why">
          <summary>{units.title}</summary>
          <p className="sub">{units.text}</p>
        </details>
        <div className="actions" style={{ alignItems: 'end' }}>
          <label className="field" style={{ maxWidth: 240 }}>
            <span>Practise a fault: this stick</span>
            <select
              className="in"
              value={FAULTS.find((f) => f.is(stick.fault))?.name}
              onChange={(e) => {
                const fault = FAULTS.find((f) => f.name === e.target.value);
                if (fault) onFault(fault.make(bytes));
              }}
            >
              {FAULTS.map((f) => (
                <option key={f.name} value={f.name}>
                  {f.name === 'none' ? 'has no fault' : f.name}
                </option>
              ))}
            </select>
          </label>
          <Quiet onClick={onProbe}>Probe its real size</Quiet>
        </div>
      </div>
    </div>
  );
}
