import fc from 'fast-check';
import { adapterSchema, driveSchema, memorySchema, stickSchema } from '../src/model/shelf';
import { itemDraftOf, itemOf, type Editable } from '../src/model/itemDraft';
import { saltmarshHall } from '../src/demo/saltmarsh';
import { decideFates, isMovable, putInto, removeItems } from '../src/acts/several';
import { applyChanges } from '../src/model/changes';
import { isMachine, isStore } from '../src/model/shelf';
import { theBench } from '../src/model/bench';

const stick = stickSchema.parse({
  kind: 'stick',
  id: 's',
  name: 'Blue stick',
  bytes: 15_931_539_456,
  serial: 'AA11',
  realBytes: null,
  model: null,
  label: '',
  transport: 'usb',
  rotational: false,
  removable: true,
  in: null,
  holds: '',
  notes: '',
});
const bench = saltmarshHall();
const editable = bench.items.filter((i): i is Editable => i.kind !== 'machine' && i.kind !== 'image');

describe('an item in its form', () => {
  it('comes back as it went in, for everything the demo bench has', () => {
    expect(editable.length).toBeGreaterThan(8);
    for (const item of editable) expect(itemOf(item, itemDraftOf(item))).toEqual({ item });
  });

  it('keeps its size to the byte while the size is not touched, and takes both manners when it is', () => {
    const memory = memorySchema.parse({
      kind: 'memory',
      id: 'm',
      name: 'Module',
      bytes: 8_589_934_592,
      type: 'DDR4',
      form: 'DIMM',
      in: null,
      notes: '',
    });
    const renamed = itemOf(memory, { ...itemDraftOf(memory), name: 'Other module' });
    expect(renamed).toMatchObject({ item: { name: 'Other module', bytes: 8_589_934_592 } });
    expect(itemOf(stick, { ...itemDraftOf(stick), size: '16 GB' })).toMatchObject({ item: { bytes: 16e9 } });
    expect(itemOf(stick, { ...itemDraftOf(stick), size: '16 GiB' })).toMatchObject({
      item: { bytes: 16 * 1024 ** 3 },
    });
  });

  it('tells every field that is wrong at once, and reads nothing then', () => {
    const wrong = itemOf(stick, {
      ...itemDraftOf(stick),
      name: '  ',
      size: '16',
      price: '-3',
      serial: 'x'.repeat(201),
    });
    const fields = 'problems' in wrong ? wrong.problems.map((p) => p.field).sort() : [];
    expect(fields).toEqual(['name', 'price', 'serial', 'size']);
  });

  it('an empty serial is none, and a drive that is no longer an M.2 drive has no key', () => {
    const drive = driveSchema.parse({
      ...stick,
      kind: 'drive',
      shape: 'M.2',
      m2: { length: '2280', key: 'M', lanes: 4 },
    });
    expect(itemOf(drive, { ...itemDraftOf(drive), serial: ' ', shape: '2.5 inch' })).toMatchObject({
      item: { serial: null, shape: '2.5 inch', m2: null },
    });
    expect(itemOf(drive, { ...itemDraftOf(drive), lanes: '3' })).toHaveProperty('problems.0.field', 'shape');
  });

  it('whatever is typed is either read whole or refused with a field, never thrown', () => {
    const adapter = adapterSchema.parse({
      kind: 'adapter',
      id: 'a',
      name: 'A',
      from: 'USB',
      to: 'SATA',
      notes: '',
    });
    const typed = fc.record({
      name: fc.string(),
      size: fc.string(),
      price: fc.string(),
      wiredPorts: fc.string(),
      goesIn: fc.oneof(fc.constant('outside'), fc.string()),
      owned: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.constantFrom<Editable>(stick, adapter), typed, (item, t) => {
        const read = itemOf(item, { ...itemDraftOf(item), ...t });
        if ('problems' in read) expect(read.problems.length).toBeGreaterThan(0);
        else {
          expect(read.item.id).toBe(item.id);
          expect(read.item.name).toBe(t.name.trim());
        }
      }),
    );
  });
});

describe('several things at once', () => {
  const [machine, other] = bench.items.filter(isMachine);
  const movable = bench.items.filter(isMovable);

  it('are decided together; what cannot be decided of stays', () => {
    const after = applyChanges(bench, decideFates(bench.items, 'keep').changes);
    expect(after.items.filter(isStore).every((s) => s.fate === 'keep')).toBe(true);
    expect(after.items.filter((i) => !isStore(i))).toEqual(bench.items.filter((i) => !isStore(i)));
    expect(decideFates(after.items, 'keep').changes).toEqual([]);
  });

  it('are put into a machine and out again; machines themselves never are', () => {
    const inside = applyChanges(bench, putInto(bench.items, machine).changes);
    expect(inside.items.filter(isMovable).every((i) => i.in === machine?.id)).toBe(true);
    expect(inside.items.filter(isMachine)).toEqual(bench.items.filter(isMachine));
    const loose = applyChanges(inside, putInto(inside.items, undefined).changes);
    expect(loose.items.filter(isMovable).every((i) => i.in === null)).toBe(true);
    expect(movable.length).toBeGreaterThan(5);
  });

  it('are taken off the shelf, and nothing left names one of them', () => {
    const gone = [machine, other, ...movable.slice(0, 4)].flatMap((i) => i ?? []);
    const after = applyChanges(bench, removeItems(bench, gone).changes);
    expect(after.items.map((i) => i.id)).toEqual(
      bench.items.map((i) => i.id).filter((id) => !gone.some((g) => g.id === id)),
    );
    expect(theBench.crossCheck(after).count).toBe(0);
  });
});
