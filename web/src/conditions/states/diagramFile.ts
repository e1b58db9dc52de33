/** How many pixels of the picture for one of the drawing. */
const PNG_SCALE = 2;

/** The diagram as a text of its own: colours and fonts are written out, as no style sheet goes along. */
function drawnApart(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true);
  if (!(copy instanceof SVGSVGElement)) throw new TypeError('A diagram is a drawing: expected an SVG element');
  const { width, height } = svg.viewBox.baseVal;
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(height));
  copy.setAttribute('font-family', 'Instrument Sans, sans-serif');
  copy.removeAttribute('class');
  copy.removeAttribute('style');
  const styles = getComputedStyle(document.documentElement);
  const text = new XMLSerializer().serializeToString(copy).replaceAll(/var\((--[\w-]+)\)/g, (_, name: string) => styles.getPropertyValue(name).trim());
  return text.replaceAll('context-stroke', styles.getPropertyValue('--color-ink2').trim());
}

export function diagramAsSvg(svg: SVGSVGElement): Blob {
  return new Blob([drawnApart(svg)], { type: 'image/svg+xml' });
}

export async function diagramAsPng(svg: SVGSVGElement): Promise<Blob> {
  const { width, height } = svg.viewBox.baseVal;
  const image = new Image();
  // The page's policy takes pictures from data and not from blobs.
  image.src = `data:image/svg+xml,${encodeURIComponent(drawnApart(svg))}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = width * PNG_SCALE;
  canvas.height = height * PNG_SCALE;
  const context = canvas.getContext('2d');
  if (context === null) throw new Error('A picture is drawn on a canvas: expected one');
  context.fillStyle = getComputedStyle(document.documentElement).getPropertyValue('--color-page');
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) => {
    canvas.toBlob((blob) => (blob === null ? reject(new Error('The browser made no picture of the canvas')) : resolve(blob)), 'image/png');
  });
}
