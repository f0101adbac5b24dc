import type { PracticeAct } from '../../model/practice';
import { said } from '../said';
import { offer, type Panel, type Row } from '../scene';
import type { Tale } from '../tale';
import type { RigState } from './state';

/** Minutes to take a drive out where nobody said. */
const PULL_MINUTES = 2;

/** What lies on the bench beside the machine, and stands in it. */
export function thingsPanel(rig: RigState): Panel {
  const rows = rig.inner.map((d): Row => {
    const inside = rig.inside.has(d.id);
    const values = { name: d.name };
    return {
      id: d.id,
      cells: [
        d.name,
        said('bytes', { bytes: d.bytes }),
        rig.holds(d.id),
        rig.labels.has(d.id) ? (d.serial ?? said('no label')) : '–',
        said(inside ? 'in the machine' : 'beside it'),
      ],
      offers: [
        ...(d.unplug === null ? [] : [offer(inside ? 'pull' : 'put', d.id, values)]),
        ...(rig.labels.has(d.id) || (d.unplug === null && inside) ? [] : [offer('look', d.id, values)]),
      ],
    };
  });
  return {
    kind: 'table',
    title: said('things'),
    heads: ['thing', 'size', 'holds', 'label', 'where'].map((c) => said(`head ${c}`)),
    rows: [
      ...rows,
      {
        id: rig.stick.id,
        cells: [
          rig.stick.name,
          said('bytes', { bytes: rig.stick.bytes }),
          rig.holds(rig.stick.id),
          '–',
          said(rig.stickIn ? 'in the port' : 'beside it'),
        ],
        offers: [offer(rig.stickIn ? 'stick out' : 'stick in')],
      },
    ],
    offers: [],
  };
}

function withDrive(rig: RigState, act: PracticeAct, tale: Tale): void {
  const d = rig.drive(act.on ?? '');
  const live = rig.view !== 'dark';
  tale.takes(act.do === 'look' ? 1 : (d.unplug?.minutes ?? PULL_MINUTES));
  if (live) tale.fault('hands in a live machine', { name: d.name });
  if (act.do === 'look') {
    rig.labels.add(d.id);
    return;
  }
  const written = rig.view === 'working' && rig.picked === d.id;
  if (act.do === 'pull') rig.inside.delete(d.id);
  else rig.inside.add(d.id);
  tale.tell(act.do === 'pull' ? 'pulled' : 'put back', { name: d.name });
  if (written) {
    rig.now.set(d.id, 'broken');
    rig.view = 'nothing';
  }
}

/** Everything done with hands beside the screen. */
export function onBench(rig: RigState, act: PracticeAct, tale: Tale): void {
  switch (act.do) {
    case 'stick in':
      rig.stickIn = true;
      return;
    case 'stick out':
      rig.stickIn = false;
      if (rig.view === 'working' || rig.view === 'sure' || rig.view === 'installer') {
        if (rig.view === 'working') {
          tale.fault('stick out too early', {}, { what: said('a half-written system'), bytes: null });
          if (rig.picked !== null) rig.now.set(rig.picked, 'broken');
        }
        rig.view = 'nothing';
      }
      return;
    case 'power off':
      if (rig.view === 'working') {
        tale.fault('off while writing', {}, { what: said('a half-written system'), bytes: null });
        if (rig.picked !== null) rig.now.set(rig.picked, 'broken');
      }
      rig.view = 'dark';
      return;
    default:
      withDrive(rig, act, tale);
  }
}
