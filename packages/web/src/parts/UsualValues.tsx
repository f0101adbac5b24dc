import { useState } from 'react';
import { assumeUsual } from '@zb/core/acts/shelf';
import type { Machine } from '@zb/core/model/bench';
import { machineForms } from '@zb/core/model/shelf';
import { useAct } from '../storage/hooks';
import { Quiet } from '../ui/Button';

const isAssumed = (machine: Machine): boolean => Object.values(machine.facts).some((r) => r.assumed);

/** For a machine that does not start yet: what its kind usually has, assumed until somebody looks. */
export function UsualValues({ machine }: { machine: Machine }) {
  const act = useAct();
  const [form, setForm] = useState(machine.form);
  const assumed = isAssumed(machine);
  return (
    <div className="actions">
      <label className="field" style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
        <span>It does not start yet? Its kind:</span>
        <select
          className="in"
          style={{ width: 'auto' }}
          value={form}
          onChange={(e) => setForm(e.target.value as Machine['form'])}
        >
          {machineForms.map((f) => (
            <option key={f}>{f}</option>
          ))}
        </select>
      </label>
      <Quiet size="sm" onClick={() => void act(assumeUsual(machine, form, true))}>
        Assume what such machines have
      </Quiet>
      {assumed && (
        <button
          type="button"
          className="link"
          onClick={() => void act(assumeUsual(machine, machine.form, false))}
        >
          Take the assumptions away
        </button>
      )}
      <span className="sub" style={{ flexBasis: '100%' }}>
        Correct what you know; what is only assumed never decides by itself.
      </span>
    </div>
  );
}
