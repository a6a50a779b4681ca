// A form that was sent comes back as a new page: whoever pressed goes on where the work was, not at the top.
const PLACE = 'worked-at';
const RECENT_MILLIS = 60000;

const sameForms = action => [...document.forms].filter(f => f.getAttribute('action') === action);

document.addEventListener('submit', event => {
  const form = event.target;
  if (form.method !== 'post') return;
  const here = form.contains(document.activeElement) ? document.activeElement : event.submitter;
  const action = form.getAttribute('action');
  const place = { id: here?.id, name: here?.name, action, form: sameForms(action).indexOf(form), at: Date.now() };
  sessionStorage.setItem(PLACE, JSON.stringify(place));
});

function found({ id, name, action, form }) {
  const byId = id && document.getElementById(id);
  if (byId && !byId.disabled) return byId;
  const again = sameForms(action)[form] ?? sameForms(action)[0];
  const named = name && again?.elements[name];
  return (named instanceof HTMLElement ? named : again?.querySelector('button:not([disabled])')) ?? null;
}

const told = sessionStorage.getItem(PLACE);
sessionStorage.removeItem(PLACE);
if (told) {
  const place = JSON.parse(told);
  if (Date.now() - place.at < RECENT_MILLIS) {
    const target = found(place) ?? document.getElementById('work');
    // what was unfolded to work in it is needed again
    for (let fold = target?.closest('details'); fold; fold = fold.parentElement.closest('details')) fold.open = true;
    // the page itself is in sight already
    const go = () => target?.focus({ preventScroll: Boolean(location.hash) || target.id === 'work' });
    go();
    // a browser that goes to a part of the page takes the focus away once more
    if (location.hash) {
      addEventListener('load', () =>
        setTimeout(() => {
          if (document.activeElement === document.body) go();
        }, 100)
      );
    }
  }
}
