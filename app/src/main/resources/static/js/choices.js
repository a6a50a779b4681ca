// A long list of choices is found by typing any part of a name.
const LONG = 12;

function searchable(select) {
  const all = [...select.options];
  const label = select.labels?.[0]?.textContent.trim() || select.getAttribute('aria-label') || 'this list';
  const find = document.createElement('input');
  find.type = 'search';
  find.className = 'form-control find-choice';
  find.placeholder = 'part of a name';
  find.setAttribute('aria-label', `Find in the list: ${label}`);
  find.autocomplete = 'off';
  find.addEventListener('input', () => {
    const words = find.value.toLowerCase().split(/\s+/).filter(Boolean);
    const fits = all.filter(o => words.every(w => `${o.text} ${o.value}`.toLowerCase().includes(w)));
    const chosen = select.value;
    select.replaceChildren(...(fits.length ? fits : all));
    select.value = fits.some(o => o.value === chosen) ? chosen : (fits.find(o => o.value) ?? fits[0] ?? all[0]).value;
    select.dispatchEvent(new Event('change', { bubbles: true }));
  });
  // Enter chooses what was found and goes on to it; it does not send the form
  find.addEventListener('keydown', event => {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    select.focus();
  });
  select.before(find);
}

for (const select of document.querySelectorAll('select')) {
  if (select.options.length > LONG && !select.querySelector('optgroup') && !select.multiple) searchable(select);
}
