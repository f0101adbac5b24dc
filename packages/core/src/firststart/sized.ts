/** “1920×1080” or “1920x1080” as two numbers; null where it is none. */
export function sizedFrom(text: string): { width: number; height: number } | null {
  const [, width, height] = /^\s*(\d{2,5})\s*[x×]\s*(\d{2,5})/i.exec(text) ?? [];
  return width === undefined || height === undefined
    ? null
    : { width: Number(width), height: Number(height) };
}
