// Readings without a hand: the meter comes to rest, it chimes, and the next point is shown.
import { chime } from './sound.js';

const button = document.getElementById('hands-free');
const going = button?.dataset.hands;

button?.addEventListener('click', () => {
  document.getElementById('hands-wait').hidden = false;
});

addEventListener('keydown', event => {
  if (event.key !== 'Escape' || !button || document.getElementById('hands-wait').hidden) return;
  window.stop();
  location.assign(location.pathname);
});

if (going) {
  chime();
  if (going === 'go') button.click();
  if (going === 'switch') button.focus();
}
