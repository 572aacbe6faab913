import type { Pinned } from './Compare';

const side = 900;
const gap = 36;
const line = 26;

const loaded = async (src: string): Promise<HTMLImageElement> => {
  const picture = new Image();
  picture.src = src;
  await picture.decode();
  return picture;
};

/** A sheet of pinned proofs, two a row, each with its name and settings, as a PNG that is saved. */
export async function makeSheet(name: string, pinned: Pinned[]): Promise<void> {
  const pictures = await Promise.all(pinned.map((one) => loaded(one.src)));
  const high = Math.max(...pictures.map((one) => (side * one.naturalHeight) / one.naturalWidth));
  const rows = Math.ceil(pinned.length / 2);
  const canvas = document.createElement('canvas');
  canvas.width = 2 * side + 3 * gap;
  canvas.height = gap + 2 * line + rows * (high + 3 * line + gap);
  const draw = canvas.getContext('2d');
  if (!draw) throw new Error('there is nothing to draw on');
  draw.fillStyle = '#fff';
  draw.fillRect(0, 0, canvas.width, canvas.height);
  draw.fillStyle = '#111';
  draw.font = "600 30px 'Archivo Variable', sans-serif";
  draw.fillText(`${name}: proofs, computed from the set. Estimates.`, gap, gap + line * 0.6);
  pinned.forEach((one, index) => {
    const picture = pictures[index];
    if (!picture) return;
    const left = gap + (index % 2) * (side + gap);
    const top = gap + 2 * line + Math.floor(index / 2) * (high + 3 * line + gap);
    draw.drawImage(picture, left, top, side, (side * picture.naturalHeight) / picture.naturalWidth);
    draw.font = "600 24px 'Archivo Variable', sans-serif";
    draw.fillText(one.name, left, top + high + line * 1.2, side);
    draw.font = "20px 'Archivo Variable', sans-serif";
    draw.fillText(one.settings, left, top + high + line * 2.2, side);
  });
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
  if (!blob) throw new Error('the sheet is too large');
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = `proofs-${name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}.png`;
  link.click();
  window.setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
