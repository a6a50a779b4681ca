// A short tone when a chosen module comes or goes, so that one can wiggle a harness and listen.
const choice = document.getElementById('listen');
let heard = new Map();
let sound = null;

function tone(high) {
  sound ??= new AudioContext();
  const voice = sound.createOscillator();
  const loudness = sound.createGain();
  voice.frequency.value = high ? 880 : 440;
  loudness.gain.setValueAtTime(0.2, sound.currentTime);
  loudness.gain.exponentialRampToValueAtTime(0.001, sound.currentTime + 0.25);
  voice.connect(loudness).connect(sound.destination);
  voice.start();
  voice.stop(sound.currentTime + 0.25);
}

document.addEventListener('htmx:afterSwap', () => {
  const now = new Map([...document.querySelectorAll('#modules tr[data-row]')].map(r => [r.dataset.row, Number(r.dataset.changes)]));
  const changed = [...now].filter(([id, n]) => heard.has(id) && n !== heard.get(id)).map(([id, n]) => [id, n % 2 === 0]);
  const wanted = changed.find(([id]) => choice.value === '*' || id === choice.value);
  if (choice.value && wanted) tone(wanted[1]);
  heard = now;
});
