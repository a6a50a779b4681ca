// Single keys: the stages, the next check, the rail, and every button that names a key. They can be switched off
// (WCAG 2.1.4), and never act while somebody types.
import { fold } from './rail.js';

const SETTING = 'single-keys';

const on = () => localStorage.getItem(SETTING) !== 'off';

/** What the page itself has a key for comes first. */
function act(key) {
  const keyed = document.querySelector(`[data-key="${CSS.escape(key)}"]`);
  const stages = document.querySelectorAll('.path a');
  if (keyed) keyed.click();
  else if (key >= '1' && key <= '7' && stages.length) stages[key - 1].click();
  else if (key === '?') document.getElementById('keys')?.showModal();
  else if (key === 'r') fold();
  else if (key === 'n') document.querySelector('[data-next]')?.click();
  else if (key === 'm') document.getElementById('mark')?.click();
  else if (key === 'p') document.getElementById('pause')?.click();
}

document.addEventListener('keydown', event => {
  const typing = event.target.closest('input:not([type=radio], [type=checkbox]), textarea, select, [contenteditable]');
  if (!on() || typing || event.ctrlKey || event.metaKey || event.altKey) return;
  act(event.key);
});

const choice = document.getElementById(SETTING);
if (choice) {
  choice.checked = on();
  choice.addEventListener('change', () => localStorage.setItem(SETTING, choice.checked ? 'on' : 'off'));
}
