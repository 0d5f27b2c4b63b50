const LONGEST_PX = 1600;
const QUALITY = 0.85;

/**
 * A photograph made small enough to keep: at most 1,600 pixels along its longer side, as JPEG. What a
 * camera wrote beside the picture, its position among it, is left behind.
 * @throws Error when the file is no picture that this browser reads
 */
export async function resizedPhoto(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file).catch(() => {
    throw new Error('This browser cannot read that file as a picture. Choose a JPEG, PNG or WebP');
  });
  const scale = Math.min(1, LONGEST_PX / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be made smaller. Try another'))), 'image/jpeg', QUALITY),
  );
}
