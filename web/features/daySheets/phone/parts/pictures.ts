/** The longer side of a picture as it is sent, in pixels: enough to read a delivery note by, small enough for a weak line. */
const LONGEST_SIDE = 1600;
const QUALITY = 0.8;

/** A picture made smaller, as JPEG. Throws where the file is no picture this browser can read. */
export async function smallerPicture(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('This picture cannot be read'))), 'image/jpeg', QUALITY),
  );
}

/** SHA-256 of a picture, which names it. */
export async function pictureHash(picture: Blob): Promise<string> {
  const digest = await crypto.subtle.digest('SHA-256', await picture.arrayBuffer());
  return [...new Uint8Array(digest)].map((it) => it.toString(16).padStart(2, '0')).join('');
}

/** Pictures are named by a digest, which a browser makes only over a safe address (https). */
export const takesPictures = (): boolean => typeof crypto !== 'undefined' && crypto.subtle !== undefined;

/** A picture as an address an image shows: pages show nothing but what comes from the server, or stands in the page itself. */
export function shownPicture(picture: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(new Error('This picture cannot be read'));
    reader.readAsDataURL(picture);
  });
}
