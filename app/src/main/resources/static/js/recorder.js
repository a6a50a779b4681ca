// Records the clicks with the microphone and puts them into the file field as a WAV;
// what happens then is as with a file.
const button = document.getElementById('record');
const told = document.getElementById('record-told');
const field = document.getElementById('file');
const LONGEST_SECONDS = 60;

// RIFF/WAVE, one channel, 16 bit (Microsoft and IBM, Multimedia Programming Interface 1.0, 1991)
function wav(parts, rate) {
  const samples = parts.reduce((n, p) => n + p.length, 0);
  const view = new DataView(new ArrayBuffer(44 + 2 * samples));
  const text = (at, letters) => [...letters].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, 36 + 2 * samples, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, 2 * rate, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  text(36, 'data');
  view.setUint32(40, 2 * samples, true);
  let at = 44;
  for (const part of parts)
    for (const s of part) {
      view.setInt16(at, Math.max(-1, Math.min(1, s)) * 32767, true);
      at += 2;
    }
  return new File([view], 'recorded.wav', { type: 'audio/wav' });
}

async function record() {
  // without echo cancelling and the like, which would take clicks for noise
  const stream = await navigator.mediaDevices.getUserMedia({
    audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
  });
  const context = new AudioContext();
  await context.audioWorklet.addModule(new URL('./recorder-worklet.js', import.meta.url));
  const parts = [];
  const node = new AudioWorkletNode(context, 'take-samples');
  node.port.onmessage = event => parts.push(event.data);
  context.createMediaStreamSource(stream).connect(node);
  const began = performance.now();
  const seconds = () => (performance.now() - began) / 1000;
  const clock = setInterval(() => {
    told.textContent = `Recording, ${seconds().toFixed(0)} s`;
    if (seconds() > LONGEST_SECONDS) button.click();
  }, 250);
  return async () => {
    clearInterval(clock);
    stream.getTracks().forEach(t => t.stop());
    await context.close();
    const files = new DataTransfer();
    files.items.add(wav(parts, context.sampleRate));
    field.files = files.files;
    told.textContent = `${seconds().toFixed(1)} s recorded. Say whether the engine is warm, then measure it.`;
  };
}

let stop = null;
button?.addEventListener('click', async () => {
  button.disabled = true;
  try {
    if (stop) {
      await stop();
      stop = null;
      button.textContent = 'Record anew';
    } else if (!navigator.mediaDevices) {
      told.textContent =
        'The browser gives the microphone to secure pages only (https, or on the machine itself). ' +
          'Record with another device and choose the file.';
    } else {
      stop = await record();
      button.textContent = 'Stop';
    }
  } catch (refused) {
    told.textContent = `The microphone cannot be had: ${refused.message}`;
  }
  button.disabled = false;
});
