/** Dots a millimetre on common label printers: 300 to the inch. */
const DOTS = 300 / 25.4;

interface Size {
  width: number;
  height: number;
}

/** A drawing by itself, with its size in millimetres. */
function alone(svg: SVGSVGElement, { width, height }: Size, unit: string, scale: number): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  copy.setAttribute('width', `${width * scale}${unit}`);
  copy.setAttribute('height', `${height * scale}${unit}`);
  copy.removeAttribute('class');
  return new XMLSerializer().serializeToString(copy);
}

/** A drawing as PNG, 300 dots to the inch. Size in millimetres. */
export async function pngOf(svg: SVGSVGElement, size: Size): Promise<Blob> {
  const picture = new Image();
  picture.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(alone(svg, size, 'px', DOTS))}`;
  await picture.decode();
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(size.width * DOTS);
  canvas.height = Math.round(size.height * DOTS);
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be made.'))),
      'image/png',
    ),
  );
}

/** Prints a drawing on a page of its own size, and nothing else. Size in millimetres. */
export function printSvg(svg: SVGSVGElement, size: Size): void {
  const frame = document.createElement('iframe');
  frame.title = 'Label';
  frame.setAttribute('aria-hidden', 'true');
  frame.style.cssText = 'position:fixed;width:0;height:0;border:0';
  document.body.append(frame);
  const page = frame.contentDocument;
  if (!page) return frame.remove();
  const style = page.createElement('style');
  style.textContent = `@page{size:${size.width}mm ${size.height}mm;margin:0}body{margin:0}`;
  page.head.append(style);
  page.body.innerHTML = alone(svg, size, 'mm', 1);
  frame.contentWindow?.addEventListener('afterprint', () => frame.remove());
  frame.contentWindow?.print();
}
