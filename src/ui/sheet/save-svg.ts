/** Attributes that may name a colour of the sheet. */
const COLOURED = ['fill', 'stroke'] as const;
const FONT = "'IBM Plex Sans Condensed', 'Arial Narrow', sans-serif";

/**
 * The drawing as a file of its own: colours of the sheet written out, its font named, nothing that needs
 * the page it came from.
 */
export function svgText(drawing: SVGSVGElement): string {
  const copy = drawing.cloneNode(true) as SVGSVGElement;
  const style = getComputedStyle(drawing);
  const written = (value: string) =>
    value === 'currentColor'
      ? style.color
      : value.replace(/var\((--[a-z]+)\)/g, (_, name: string) => style.getPropertyValue(name).trim());
  for (const element of [copy, ...copy.querySelectorAll('*')]) {
    for (const name of COLOURED) {
      const value = element.getAttribute(name);
      if (value) element.setAttribute(name, written(value));
    }
    for (const name of [...element.getAttributeNames()].filter(
      (each) => each === 'class' || each.startsWith('aria-') || each === 'role',
    ))
      element.removeAttribute(name);
  }
  const comments = document.createNodeIterator(copy, NodeFilter.SHOW_COMMENT);
  const found: Node[] = [];
  for (let node = comments.nextNode(); node; node = comments.nextNode()) found.push(node);
  found.forEach((node) => node.parentNode?.removeChild(node));
  copy.normalize();
  const { width, height } = drawing.viewBox.baseVal;
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(height));
  copy.setAttribute('font-family', FONT);
  copy.setAttribute('style', `background:${written('var(--sheet)')};color:${style.color}`);
  return new XMLSerializer().serializeToString(copy);
}

/** Hands the drawing to the browser as a download. */
export function saveSvg(drawing: SVGSVGElement, name: string): void {
  const address = URL.createObjectURL(new Blob([svgText(drawing)], { type: 'image/svg+xml' }));
  const link = Object.assign(document.createElement('a'), { href: address, download: name });
  link.click();
  URL.revokeObjectURL(address);
}
