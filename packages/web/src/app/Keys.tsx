import { Dialog } from '../ui/Dialog';
import { AREAS } from './areas';

const KEYS: [string, string][] = [
  ...AREAS.map((a): [string, string] => [a.key.toUpperCase(), `go to ${a.title}`]),
  ['/', 'find anything'],
  ['?', 'this sheet'],
  ['Ctrl or ⌘ Z', 'take the last act back'],
  ['← →', 'stop before, stop after'],
  ['Space', 'sign off the stop'],
  ['O', 'open an image (at Verify and in the Image room)'],
  ['E', 'show the evidence (at Verify and in the Image room)'],
];

export const Keys = ({ open, onClose }: { open: boolean; onClose: () => void }) => (
  <Dialog open={open} onClose={onClose} title="Keys" size="sm">
    <table className="t">
      <tbody>
        {KEYS.map(([key, what]) => (
          <tr key={key}>
            <td className="m nowrap" style={{ width: 120 }}>
              {key}
            </td>
            <td>{what}</td>
          </tr>
        ))}
      </tbody>
    </table>
  </Dialog>
);
