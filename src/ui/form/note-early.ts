/**
 * Stands in the page itself: it notes what is chosen or typed while the page is read and not yet alive, which on a slow line
 * may be seconds. What a page is made alive with would set a list back to what it was, unsaid.
 */
export const NOTE_EARLY = `(() => {
  const given = new Map();
  const note = ({ target }) => given.set(target, /^(checkbox|radio)$/.test(target.type) ? target.checked : target.value);
  window.early = { given, note };
  addEventListener('input', note, true);
})()`;
