import { useState } from 'react';
import { useNavigate } from 'react-router';
import { createBox } from '@zb/core/acts/box';
import { blankMachine } from '@zb/core/acts/shelf';
import { purposes, type Purpose } from '@zb/core/model/profile';
import { machinesOf } from '@zb/core/model/bench';
import { machineForms } from '@zb/core/model/shelf';
import { Primary } from '../../ui/Button';
import { Sheet } from '../../parts/Sheet';
import { stamp, useAct, useBench } from '../../storage/hooks';

export default function NewBoxPage() {
  const bench = useBench();
  const act = useAct();
  const go = useNavigate();
  const [name, setName] = useState('');
  const [purpose, setPurpose] = useState<Purpose>('games');
  const [machineId, setMachineId] = useState('');
  const [nickname, setNickname] = useState('');
  const [form, setForm] = useState<(typeof machineForms)[number]>('office desktop');
  const machines = machinesOf(bench);
  const open = async (): Promise<void> => {
    const s = stamp();
    const fresh =
      machineId === 'new' && nickname.trim() !== '' ? blankMachine(nickname.trim(), form, s) : undefined;
    const made = createBox(
      name.trim(),
      purpose,
      fresh ?? machines.find((m) => m.id === machineId),
      s,
      fresh !== undefined,
    );
    await act(made);
    void go(`/box/${made.box.id}/survey`);
  };
  const ready = name.trim() !== '' && (machineId !== 'new' || nickname.trim() !== '');
  return (
    <>
      <Sheet
        title="New box"
        headline="What is it to become?"
        foot={
          <Primary onClick={() => void open()} disabled={!ready}>
            Open the box
          </Primary>
        }
        hint="The box begins at Survey"
      >
        <form
          className="stack"
          style={{ maxWidth: 520 }}
          onSubmit={(e) => {
            e.preventDefault();
            if (ready) void open();
          }}
        >
          <label className="field">
            <span>Name of the box</span>
            <input
              className="in"
              autoFocus
              maxLength={200}
              value={name}
              onChange={(e) => setName(e.target.value)}
              placeholder="Games corner, guest gate, archive…"
            />
          </label>
          <label className="field">
            <span>Purpose</span>
            <select className="in" value={purpose} onChange={(e) => setPurpose(e.target.value as Purpose)}>
              {purposes.map((p) => (
                <option key={p}>{p}</option>
              ))}
            </select>
          </label>
          <label className="field">
            <span>Machine</span>
            <select className="in" value={machineId} onChange={(e) => setMachineId(e.target.value)}>
              <option value="">decide later</option>
              <option value="new">a new machine…</option>
              {machines.map((m) => (
                <option key={m.id} value={m.id}>
                  {m.name}, {m.form}
                </option>
              ))}
            </select>
          </label>
          {machineId === 'new' && (
            <div className="actions">
              <label className="field">
                <span>Its nickname</span>
                <input
                  className="in"
                  maxLength={200}
                  value={nickname}
                  onChange={(e) => setNickname(e.target.value)}
                />
              </label>
              <label className="field">
                <span>Kind</span>
                <select className="in" value={form} onChange={(e) => setForm(e.target.value as typeof form)}>
                  {machineForms.map((f) => (
                    <option key={f}>{f}</option>
                  ))}
                </select>
              </label>
            </div>
          )}
          <button type="submit" className="hidden-text" tabIndex={-1}>
            Open the box
          </button>
        </form>
      </Sheet>
      <aside className="ledger" aria-label="Ledger" />
    </>
  );
}
