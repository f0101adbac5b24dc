import { rmSync } from 'node:fs';

export default function teardown(): void {
  if (process.env.ZB_MADE) rmSync(process.env.ZB_MADE, { recursive: true, force: true });
}
