// Numbers in their places: big ones, those of a drawing, and states as words.
export function written(value, y) {
  if (y == null || Number.isNaN(y)) return '–';
  return value.state ? (value.words[Math.round(y)] ?? `state ${y}`) : y.toFixed(value.digits);
}

export function readouts() {
  const places = new Map();
  for (const place of document.querySelectorAll('[data-show]')) {
    if (!places.has(place.dataset.show)) places.set(place.dataset.show, []);
    places.get(place.dataset.show).push(place);
  }
  return {
    ids: [...places.keys()],
    set(id, text, verdict) {
      for (const place of places.get(id) ?? []) {
        if (place.textContent !== text) place.textContent = text;
        const card = place.closest('.big-card');
        if (card) card.dataset.verdict = verdict ?? '';
      }
    },
  };
}
