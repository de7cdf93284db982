/** Signs that a name may have in a selector without being escaped. */
const NAME = /^[A-Za-z_][\w-]*$/;
/** What holds words rather than parts of a page: an area is one of the elements around it. */
const WORDS =
  "a, abbr, b, button, cite, code, em, figcaption, i, img, input, label, li, p, path, picture, small, span, strong, sub, sup, svg, time, td, th, tr, tbody, thead, tfoot, h1, h2, h3, h4, h5, h6, br, hr, video, audio, canvas, select, textarea, option";

/** The part of a page that is meant when something in it is pointed at: the closest that can hold a text. */
export function areaAt(pointed: Element): Element | undefined {
  let area: Element | null = pointed;
  while (area?.matches(WORDS)) area = area.parentElement;
  return area && !area.matches("body, html, head") ? area : undefined;
}

/** The parts of a page around one, itself first, each with a selector that finds it. */
export function areasAround(area: Element): { element: Element; selector: string }[] {
  const around: { element: Element; selector: string }[] = [];
  for (let element: Element | null = area; element; element = element.parentElement) {
    if (element.matches("body, html")) break;
    if (!element.matches(WORDS)) around.push({ element, selector: selectorOf(element) });
  }
  return around;
}

/** A selector whose first match in its document is this element: by name where it has one, else by its place. */
export function selectorOf(element: Element): string {
  const { localName, id, ownerDocument } = element;
  const isFirst = (selector: string): boolean => ownerDocument.querySelector(selector) === element;
  const named = [
    ...(NAME.test(id) ? [`#${id}`] : []),
    ...(/^(?:main|article)$/.test(localName) ? [localName] : []),
    ...[...element.classList].filter((name) => NAME.test(name)).map((name) => `${localName}.${name}`),
  ];
  const found = named.find(isFirst);
  if (found !== undefined) return found;
  const { parentElement } = element;
  if (!parentElement || parentElement.matches("body, html")) return `body > ${placed(element)}`;
  // A tbody that nobody wrote is in the document all the same, and not in the page as it was sent.
  return parentElement.matches("tbody, tr, table")
    ? `${selectorOf(parentElement.closest("table")!)} ${placed(element)}`
    : `${selectorOf(parentElement)} > ${placed(element)}`;
}

function placed(element: Element): string {
  const alike = [...(element.parentElement?.children ?? [])].filter(
    ({ localName }) => localName === element.localName,
  );
  return alike.length < 2
    ? element.localName
    : `${element.localName}:nth-of-type(${alike.indexOf(element) + 1})`;
}
