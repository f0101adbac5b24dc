const LONGEST = 1280;

/** A photo made small enough to keep: at most 1280 pixels on the longer side, JPEG. Throws where it is no picture. */
export async function smallPhoto(file: File): Promise<string> {
  let picture: ImageBitmap;
  try {
    picture = await createImageBitmap(file);
  } catch {
    throw new Error(`${file.name} is not a picture this browser can read. Nothing was added.`);
  }
  const scale = Math.min(1, LONGEST / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return canvas.toDataURL('image/jpeg', 0.82);
}
