import { useState } from 'react';
import { changeSettings } from '@zb/core/acts/wishes';
import type { Bench } from '@zb/core/model/bench';
import { criteria, type Settings } from '@zb/core/model/settings';
import { Primary } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { useAct } from '../../storage/hooks';

const ABOUT: Record<(typeof criteria)[number], string> = {
  quiet: 'silent counts full, loud nothing',
  watts: 'few watts when idle',
  speed: 'cores, clock and level of the CPU',
  cost: 'little or nothing to buy',
  'spare ports': 'drive and network ports left over',
  age: 'a younger CPU',
  preferred: 'what the system runs better with',
};

const amountOf = (text: string): number | undefined => {
  const n = Number(text.trim().replace(',', '.'));
  return text.trim() !== '' && Number.isFinite(n) && n >= 0 ? n : undefined;
};

/** The weights of the score, and the money everything is reckoned with. */
export function SettingsForm({ bench, onClose }: { bench: Bench; onClose: () => void }) {
  const act = useAct();
  const [weights, setWeights] = useState(bench.settings.weights);
  const [budget, setBudget] = useState(String(bench.settings.budget));
  const [tariff, setTariff] = useState(String(bench.settings.tariff));
  const [currency, setCurrency] = useState(bench.settings.currency);
  const money = { budget: amountOf(budget), tariff: amountOf(tariff) };
  const sound = money.budget !== undefined && money.tariff !== undefined;
  const save = (): void => {
    if (money.budget === undefined || money.tariff === undefined) return;
    const change: Partial<Settings> = {
      weights,
      budget: money.budget,
      tariff: money.tariff,
      currency: currency.trim(),
    };
    void act(changeSettings(bench, change, 'Weights and money saved'));
    onClose();
  };
  return (
    <Dialog open onClose={onClose} title="Weights and money" size="md">
      <form
        className="formgrid"
        onSubmit={(e) => {
          e.preventDefault();
          save();
        }}
      >
        {criteria.map((c) => (
          <label className="field" key={c}>
            <span>
              {c}: {weights[c]}
            </span>
            <input
              type="range"
              min={0}
              max={10}
              step={0.5}
              value={weights[c]}
              onChange={(e) => setWeights({ ...weights, [c]: Number(e.target.value) })}
            />
            <span className="sub">{ABOUT[c]}</span>
          </label>
        ))}
        <label className="field">
          <span>To spend on all boxes</span>
          <input
            className="in mono"
            inputMode="decimal"
            value={budget}
            onChange={(e) => setBudget(e.target.value)}
          />
        </label>
        <label className="field">
          <span>Price of a kilowatt-hour</span>
          <input
            className="in mono"
            inputMode="decimal"
            value={tariff}
            onChange={(e) => setTariff(e.target.value)}
          />
        </label>
        <label className="field">
          <span>Currency behind amounts (may be empty)</span>
          <input
            className="in"
            value={currency}
            maxLength={8}
            onChange={(e) => setCurrency(e.target.value)}
          />
        </label>
        {!sound && (
          <p className="said said-stop wide" role="alert">
            Amounts are numbers from 0, such as 60 or 0.32. Nothing was saved.
          </p>
        )}
        <div className="wide">
          <Primary type="submit" disabled={!sound}>
            Save and solve again
          </Primary>
        </div>
      </form>
    </Dialog>
  );
}
