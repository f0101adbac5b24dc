import type { PracticeAct } from '../../model/practice';
import type { Random } from '../draw';
import { said } from '../said';
import { offer, type DrawnDrive, type Offer, type Panel, type RigScreen, type Scene } from '../scene';
import type { Tale } from '../tale';
import { onBench, thingsPanel } from './bench';
import {
  inMenu,
  inSetup,
  menuScreen,
  pressed,
  screenOf,
  setupScreen,
  waking,
  wakingScreen,
} from './firmware';
import { rigHint } from './hint';
import { inInstaller, installerScreen, sureScreen, working, workingScreen } from './installer';
import type { RigSetup } from './setup';
import { RigState } from './state';

const HANDS = new Set(['pull', 'put', 'look', 'stick in', 'stick out', 'power off']);

/** A made-up machine on the bench: power, firmware, installer, drives and a stick. */
export class Rig implements Scene {
  private readonly rig: RigState;

  constructor(
    private readonly setup: RigSetup,
    random: Random,
  ) {
    this.rig = new RigState(setup, random);
  }

  private screen(): RigScreen {
    const { rig } = this;
    switch (rig.view) {
      case 'dark':
        return screenOf('dark', [said('dark')]);
      case 'waking':
        return wakingScreen(rig);
      case 'setup':
        return setupScreen(rig);
      case 'menu':
        return menuScreen(rig);
      case 'installer':
        return installerScreen(rig);
      case 'sure':
        return sureScreen(rig);
      case 'working':
        return workingScreen(rig);
      case 'prompt':
        return screenOf('form', [said('prompt')], { offers: [offer('restart')] });
      case 'nothing':
        return screenOf('dark', [said('nothing to start')], { offers: [offer('restart')] });
      default:
        return screenOf('system', [said(`runs ${rig.view}`)], {
          offers: [offer('shut down'), offer('restart')],
        });
    }
  }

  private paper(): Panel {
    const { keys, plan, task } = this.setup;
    return {
      kind: 'paper',
      title: said('paper'),
      lines: [
        said('paper keys', { setup: keys.setup, menu: keys.menu }),
        ...(task === 'start once'
          ? []
          : [
              said('paper target', {
                name: this.rig.target.name,
                bytes: this.rig.target.bytes,
                serial: this.rig.target.serial ?? '–',
              }),
              said(`paper ${plan.installer.choice}`),
            ]),
        said(plan.machine.secureBoot === 'on' ? 'paper secure on' : 'paper secure off'),
      ],
    };
  }

  private drawn(): Panel {
    const { rig } = this;
    return {
      kind: 'drives',
      title: said('drives drawn'),
      drives: rig.inner.map((d): DrawnDrive => {
        const now = rig.now.get(d.id);
        return {
          id: d.id,
          name: d.name,
          bytes: d.bytes,
          pattern:
            now === 'new' ? 'new' : now === 'broken' ? 'erased' : rig.holds(d.id) === '' ? 'free' : 'kept',
          holds:
            now === 'new' ? said('new system') : now === 'broken' ? said('erased by it') : rig.holds(d.id),
        };
      }),
    };
  }

  panels(): Panel[] {
    const on = this.rig.view !== 'dark';
    const power: Offer[] = [offer(on ? 'power off' : 'power')];
    return [
      { kind: 'machine', name: this.setup.plan.machine.name, on, screen: this.screen(), offers: power },
      thingsPanel(this.rig),
      this.paper(),
      this.drawn(),
    ];
  }

  take(act: PracticeAct, tale: Tale): void {
    const { rig } = this;
    if (HANDS.has(act.do)) return onBench(rig, act, tale);
    switch (act.do) {
      case 'power':
      case 'restart':
        return rig.wake();
      case 'shut down':
        if (rig.view === 'live') {
          rig.startedOnce = true;
          tale.takes(10);
        }
        rig.view = 'dark';
        return;
      case 'press':
        return pressed(rig, act.on ?? '', tale);
    }
    if (rig.view === 'waking') waking(rig, tale);
    else if (rig.view === 'setup') inSetup(rig, act, tale);
    else if (rig.view === 'menu') inMenu(rig, act, tale);
    else if (rig.view === 'working') working(rig, tale);
    else inInstaller(rig, act, tale);
  }

  hint() {
    return rigHint(this.rig);
  }
}
