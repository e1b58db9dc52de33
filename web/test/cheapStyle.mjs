/** What stands in a block of its own where nothing else is said (HTML, section 15.3); of what is not here jsdom says nothing, and names are made by that. */
const BLOCKS = new Set('address article aside blockquote body center dd details dialog dir div dl dt fieldset figcaption figure footer form h1 h2 h3 h4 h5 h6 header hgroup hr html legend li main menu nav ol optgroup option p pre search section summary table tbody td tfoot th thead tr ul'.split(' '));
const NEVER_SHOWN = new Set('area base datalist head link meta noscript param script style template title'.split(' '));

/** @param {Element} element */
function displayOf(element) {
  const said = element.style?.display;
  if (said) return said;
  if (element.hasAttribute('hidden') || NEVER_SHOWN.has(element.localName)) return 'none';
  return BLOCKS.has(element.localName) ? 'block' : '';
}

/** @param {Element} element */
function visibilityOf(element) {
  for (let at = element; at !== null; at = at.parentElement) if (at.style?.visibility) return at.style.visibility;
  return 'visible';
}

/**
 * The style of an element as far as queries by role and name ask for it: whether it is shown, and whether it begins a line.
 * A page in a test has no style sheet to speak of, and jsdom holds each element against the whole of a browser's own: a fifth
 * of the time of all tests of pages. Whatever else is asked for is answered by it.
 */
export function cheapStyle(window) {
  const whole = window.getComputedStyle.bind(window);
  const nothing = window.document.createElement('i').style;
  return (element, pseudo) => {
    if (pseudo) return nothing;
    const known = { display: () => displayOf(element), visibility: () => visibilityOf(element) };
    return new Proxy(nothing, {
      get(_, name) {
        if (Object.hasOwn(known, name)) return known[name]();
        if (name === 'getPropertyValue') return (property) => known[property]?.() ?? whole(element).getPropertyValue(property);
        const value = whole(element)[name];
        return typeof value === 'function' ? value.bind(whole(element)) : value;
      },
    });
  };
}
