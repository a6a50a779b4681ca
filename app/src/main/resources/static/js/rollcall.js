// A short tone when a chosen module comes or goes, so that one can wiggle a harness and listen.
import { tone } from './sound.js';

const choice = document.getElementById('listen');
let heard = new Map();

document.addEventListener('htmx:afterSwap', () => {
  const now = new Map(
    [...document.querySelectorAll('#modules tr[data-row]')].map(r => [
      r.dataset.row,
      Number(r.dataset.changes),
    ]),
  );
  const changed = [...now]
    .filter(([id, n]) => heard.has(id) && n !== heard.get(id))
    .map(([id, n]) => [id, n % 2 === 0]);
  const wanted = changed.find(([id]) => choice.value === '*' || id === choice.value);
  if (choice.value && wanted) tone(wanted[1] ? 880 : 440);
  heard = now;
});
