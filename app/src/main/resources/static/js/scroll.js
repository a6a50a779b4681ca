// What is wider than its place scrolls by itself, and can then be reached and scrolled with the keyboard.
const PLACES = '.sheet, .scroll-x, .value-list, .take-list';

function reach() {
  for (const place of document.querySelectorAll(PLACES)) {
    const scrolls = place.scrollWidth > place.clientWidth + 1 || place.scrollHeight > place.clientHeight + 1;
    if (scrolls && !place.hasAttribute('tabindex')) {
      place.tabIndex = 0;
      place.dataset.reached = 'yes';
      if (!place.hasAttribute('aria-label') && !place.matches('form, details')) {
        place.setAttribute('role', 'region');
        const head = place.querySelector('h2, h3, caption, legend, summary');
        place.setAttribute('aria-label', head?.textContent.trim() || 'More to the side');
      }
    } else if (!scrolls && place.dataset.reached) {
      place.removeAttribute('tabindex');
      place.removeAttribute('role');
      place.removeAttribute('aria-label');
      delete place.dataset.reached;
    }
  }
}

reach();
addEventListener('resize', reach);
document.addEventListener('toggle', reach, true);
for (const swapped of ['htmx:afterSwap', 'htmx:oobAfterSwap']) document.addEventListener(swapped, reach);
