import { useState } from 'react';
import { removeWish, saveWish } from '@zb/core/acts/wishes';
import { usualHours } from '@zb/core/system/cost';
import type { Bench, Wish } from '@zb/core/model/bench';
import { purposes } from '@zb/core/model/profile';
import { noiseLevels, wishFeatures } from '@zb/core/model/wish';
import { Primary, Quiet } from '../../ui/Button';
import { Choice } from '../../parts/Choice';
import { Dialog } from '../../ui/Dialog';
import { useAct } from '../../storage/hooks';

/** What is wanted, how much, and where it will stand. */
export function WishForm({ bench, wish, onClose }: { bench: Bench; wish: Wish; onClose: () => void }) {
  const act = useAct();
  const [seen] = useState(wish);
  const [draft, setDraft] = useState(wish);
  const set = (change: Partial<Wish>): void => setDraft((d) => ({ ...d, ...change }));
  const save = (): void => {
    if (draft.name.trim() === '') return;
    void act(saveWish(seen, { ...draft, name: draft.name.trim() }));
    onClose();
  };
  const systems = bench.profiles.filter((p) => p.purpose === draft.purpose);
  return (
    <Dialog open onClose={onClose} title="A wish" size="md">
      <form
        className="formgrid"
        onSubmit={(e) => {
          e.preventDefault();
          save();
        }}
      >
        <label className="field">
          <span>Name</span>
          <input
            className="in"
            value={draft.name}
            maxLength={120}
            autoFocus
            onFocus={(e) => e.target.select()}
            onChange={(e) => set({ name: e.target.value })}
          />
        </label>
        <Choice
          label="Purpose"
          value={draft.purpose}
          options={purposes}
          onPick={(purpose) => set({ purpose, profileId: null, hoursPerDay: usualHours(purpose) })}
        />
        <label className="field">
          <span>System</span>
          <select
            className="in"
            value={draft.profileId ?? ''}
            onChange={(e) => set({ profileId: e.target.value || null })}
          >
            <option value="">any for {draft.purpose}</option>
            {systems.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </select>
        </label>
        <label className="field">
          <span>Importance: {draft.importance} of 5</span>
          <input
            type="range"
            min={1}
            max={5}
            value={draft.importance}
            onChange={(e) => set({ importance: Number(e.target.value) })}
          />
        </label>
        <Choice
          label="Loudest it may be where it stands"
          value={draft.noise}
          options={noiseLevels}
          onPick={(noise) => set({ noise })}
        />
        <label className="field">
          <span>Most watts when idle (empty: no limit)</span>
          <input
            className="in mono"
            inputMode="numeric"
            value={draft.wattsMax ?? ''}
            onChange={(e) => {
              const n = Number(e.target.value);
              if (e.target.value === '') set({ wattsMax: null });
              else if (Number.isInteger(n) && n > 0) set({ wattsMax: n });
            }}
          />
        </label>
        <label className="field">
          <span>Hours a day it runs</span>
          <input
            className="in mono"
            type="number"
            min={0}
            max={24}
            step={0.5}
            value={draft.hoursPerDay}
            onChange={(e) => {
              const n = Number(e.target.value);
              if (n >= 0 && n <= 24) set({ hoursPerDay: n });
            }}
          />
        </label>
        <label className="check">
          <input type="checkbox" checked={draft.wire} onChange={(e) => set({ wire: e.target.checked })} />
          <span>A network wire leads there</span>
        </label>
        <fieldset className="wide">
          <legend className="h6">It must have</legend>
          <div className="actions">
            {wishFeatures.map((f) => (
              <label key={f} className="check">
                <input
                  type="checkbox"
                  checked={draft.features.includes(f)}
                  onChange={(e) =>
                    set({
                      features: e.target.checked
                        ? [...draft.features, f]
                        : draft.features.filter((x) => x !== f),
                    })
                  }
                />
                <span>{f}</span>
              </label>
            ))}
          </div>
        </fieldset>
        <label className="field wide">
          <span>Notes</span>
          <input
            className="in"
            value={draft.notes}
            maxLength={2000}
            onChange={(e) => set({ notes: e.target.value })}
          />
        </label>
        {(draft.pinned !== null || draft.forbid.length > 0) && (
          <p className="wide soft">
            {draft.pinned !== null && `Pinned to ${bench.items.find((i) => i.id === draft.pinned)?.name}. `}
            {draft.forbid.length > 0 &&
              `Forbidden: ${draft.forbid.map((id) => bench.items.find((i) => i.id === id)?.name).join(', ')}. `}
            <button type="button" className="link" onClick={() => set({ pinned: null, forbid: [] })}>
              Take that back
            </button>
          </p>
        )}
        <div className="actions wide">
          <Primary type="submit" disabled={draft.name.trim() === ''}>
            Save the wish
          </Primary>
          <Quiet
            onClick={() => {
              void act(removeWish(bench, wish));
              onClose();
            }}
          >
            Remove it
          </Quiet>
        </div>
      </form>
    </Dialog>
  );
}
