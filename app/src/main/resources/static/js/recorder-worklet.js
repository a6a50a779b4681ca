// Hands on what the microphone hears, block by block, first channel alone.
registerProcessor(
  'take-samples',
  class extends AudioWorkletProcessor {
    process([input]) {
      if (input[0]) this.port.postMessage(input[0].slice());
      return true;
    }
  },
);
