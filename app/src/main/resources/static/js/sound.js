// Short tones, made on the spot; nothing sounds before somebody asked for it.
let sound = null;

export function tone(hertz, seconds = 0.25, after = 0) {
  sound ??= new AudioContext();
  const start = sound.currentTime + after;
  const voice = sound.createOscillator();
  const loudness = sound.createGain();
  voice.frequency.value = hertz;
  loudness.gain.setValueAtTime(0.2, start);
  loudness.gain.exponentialRampToValueAtTime(0.001, start + seconds);
  voice.connect(loudness).connect(sound.destination);
  voice.start(start);
  voice.stop(start + seconds);
}

export function chime() {
  tone(660, 0.5);
  tone(990, 0.8, 0.18);
}
