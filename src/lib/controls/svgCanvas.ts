/** An SVG drawn on a canvas, `scale` px for each of its own. @throws when it is no picture to the browser */
export async function svgCanvas(
  svg: string,
  { width, height }: { readonly width: number; readonly height: number },
  scale: number
): Promise<HTMLCanvasElement> {
  const address = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = address;
    await image.decode();
    const canvas = document.createElement('canvas');
    canvas.width = Math.round(width * scale);
    canvas.height = Math.round(height * scale);
    const context = canvas.getContext('2d');
    if (!context) throw new Error('This browser can’t draw images.');
    context.fillStyle = '#fff';
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.drawImage(image, 0, 0, canvas.width, canvas.height);
    return canvas;
  } finally {
    URL.revokeObjectURL(address);
  }
}
