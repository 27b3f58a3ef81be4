/** What a drawing on a page gets from its style sheet, and must carry with it when it leaves. */
const CARRIED = ["fill", "stroke", "stroke-width", "stroke-dasharray", "opacity", "font-size", "font-weight"] as const;

/** Pixels to one of the page, so that it stays sharp in print. */
const SHARP = 2;

/** The drawing by itself: colours as they are shown, on the page’s own ground, in a typeface that is everywhere. */
export function svgText(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true);
  if (!(copy instanceof SVGSVGElement)) {
    return "";
  }
  const shown = [svg, ...svg.querySelectorAll("*")];
  [copy, ...copy.querySelectorAll("*")].forEach((part, i) => {
    const original = shown[i];
    if (original !== undefined && part instanceof SVGElement) {
      const style = getComputedStyle(original);
      CARRIED.forEach((name) => part.style.setProperty(name, style.getPropertyValue(name)));
      part.removeAttribute("class");
    }
  });
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.setAttribute("font-family", "sans-serif");
  const ground = document.createElementNS("http://www.w3.org/2000/svg", "rect");
  ground.setAttribute("width", "100%");
  ground.setAttribute("height", "100%");
  ground.setAttribute("fill", getComputedStyle(document.body).backgroundColor);
  copy.prepend(ground);
  return new XMLSerializer().serializeToString(copy);
}

/** The same in dots. */
export async function pngOf(svg: SVGSVGElement): Promise<Blob> {
  const { width, height } = svg.viewBox.baseVal;
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svgText(svg))}`;
  await image.decode();
  const canvas = document.createElement("canvas");
  canvas.width = SHARP * width;
  canvas.height = SHARP * height;
  canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error("no picture"))), "image/png"),
  );
}
