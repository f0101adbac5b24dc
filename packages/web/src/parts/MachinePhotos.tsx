import { useState } from 'react';
import { addPhoto, removePhoto } from '@zb/core/acts/shelf';
import { photosOf, type Machine } from '@zb/core/model/bench';
import { stamp, useAct, useBench } from '../storage/hooks';
import { smallPhoto } from './photo';

/** Photographs of the label or the board, kept with the machine. */
export function MachinePhotos({ machine }: { machine: Machine }) {
  const act = useAct();
  const bench = useBench();
  const [problem, setProblem] = useState('');
  const [caption, setCaption] = useState('');
  const add = (file: File | undefined): void => {
    if (!file) return;
    smallPhoto(file).then(
      (data) => {
        void act(addPhoto(machine, caption.trim() || 'Label or board', data, stamp()));
        setCaption('');
        setProblem('');
      },
      (error: unknown) => setProblem(error instanceof Error ? error.message : String(error)),
    );
  };
  return (
    <section aria-label="Photographs">
      <h2 className="h6">Photographs of label and board</h2>
      <div className="actions" style={{ alignItems: 'flex-start' }}>
        {photosOf(bench, machine.id).map((p) => (
          <figure key={p.id}>
            <img className="photo" src={p.data} alt={p.caption} />
            <figcaption className="sub">
              {p.caption}{' '}
              <button
                type="button"
                className="link"
                aria-label={`Remove the photo ${p.caption}`}
                onClick={() => void act(removePhoto(p.id))}
              >
                remove
              </button>
            </figcaption>
          </figure>
        ))}
      </div>
      <div className="actions no-print">
        <input
          className="in"
          style={{ flex: '0 1 220px' }}
          aria-label="What the photo shows"
          placeholder="What it shows"
          value={caption}
          maxLength={200}
          onChange={(e) => setCaption(e.target.value)}
        />
        <label className="link">
          Add a photo
          <input
            type="file"
            accept="image/*"
            className="hidden-text"
            onChange={(e) => {
              const file = e.target.files?.[0];
              e.target.value = '';
              add(file);
            }}
          />
        </label>
      </div>
      {problem !== '' && (
        <p className="said said-stop" role="alert">
          {problem}
        </p>
      )}
    </section>
  );
}
