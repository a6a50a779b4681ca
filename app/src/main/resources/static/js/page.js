// What every page does: CSRF for htmx, live top bar, rail and parts that changed.
import { fold } from './rail.js';
import { chime } from './sound.js';
import './keys.js';
import './focus.js';
import './drafts.js';
import './choices.js';
import './files.js';
import './copy.js';
import './pictures.js';
import './sign.js';
import './scroll.js';
import './sheet.js';
import './hands.js';

const csrf = document.querySelector('meta[name=csrf]');
const job = document.body.dataset.job;

document.addEventListener('htmx:configRequest', event => {
  if (csrf) event.detail.headers[csrf.dataset.header] = csrf.content;
});

// buttons stand outside of what is swapped, so that a press is never lost; only whether they may be pressed follows
for (const swapped of ['htmx:oobAfterSwap', 'htmx:afterSwap']) {
  document.addEventListener(swapped, () => {
    for (const gates of document.querySelectorAll('[data-opens]')) {
      const button = document.getElementById(gates.dataset.opens);
      if (button) button.disabled = gates.dataset.allOpen !== 'true';
    }
  });
}

// a swap between pressing and letting go of a button would lose the press;
// what is swapped away then comes with the next poll
let pressed = false;
document.addEventListener('pointerdown', () => {
  pressed = true;
});
for (const end of ['pointerup', 'pointercancel'])
  document.addEventListener(end, () =>
    setTimeout(() => {
      pressed = false;
    }),
  );
document.addEventListener('htmx:beforeSwap', event => {
  if (pressed) event.detail.shouldSwap = false;
});

document.addEventListener('click', event => {
  const opener = event.target.closest('[data-open]');
  if (opener) document.getElementById(opener.dataset.open).showModal();
  if (event.target.closest('[data-fold]')) fold();
});

// the theme that is seen is the one that is switched
document.addEventListener('submit', event => {
  const seen = event.target.querySelector('[name=seen]');
  if (seen) seen.value = document.documentElement.dataset.bsTheme;
});

if (job) {
  const busy = {};
  const refresh = part => {
    clearTimeout(busy[part]);
    busy[part] = setTimeout(() => {
      if (part === 'rail') htmx.ajax('GET', `/jobs/${job}/rail`, { target: '#rail', swap: 'innerHTML' });
      const here = document.querySelector(`[data-part="${part}"]`);
      if (here) htmx.ajax('GET', here.dataset.url, { target: here, swap: 'innerHTML' });
    }, 120);
  };
  const refreshAll = () => {
    refresh('rail');
    for (const part of document.querySelectorAll('[data-part]')) refresh(part.dataset.part);
  };
  let source = null;
  const hangUp = () => {
    source?.close();
    source = null;
  };
  const listen = () => {
    const its = new EventSource(`/jobs/${job}/events`);
    source = its;
    // a stream that ends for good may have ended with its sign-in
    its.onerror = async () => {
      if (its.readyState !== EventSource.CLOSED) return;
      const now = await fetch(location.href);
      if (now.redirected && new URL(now.url).pathname === '/sign-in') location.href = '/sign-in?ended';
    };
    its.addEventListener('head', event => {
      const head = JSON.parse(event.data);
      head.link = head.connected ? 'connected' : 'not connected';
      head.commander = head.commander ? `${head.commander} commands this vehicle now.` : '';
      for (const cell of document.querySelectorAll('[data-head]')) {
        const text = head[cell.dataset.head];
        if (cell.textContent !== text) cell.textContent = text;
      }
    });
    // what this page missed while it did not read, it looks up
    its.addEventListener('lost', refreshAll);
    its.addEventListener('changed', event => {
      if (event.data === 'sweep-done') {
        document.body.dataset.sweepDone = 'yes';
        if (localStorage.getItem('chime') === 'yes') chime();
      } else refresh(event.data);
    });
  };
  addEventListener('pagehide', hangUp);
  // a browser opens six connections to a host: tabs that nobody sees must not keep one each
  document.addEventListener('visibilitychange', () => {
    if (!document.hidden && !source) {
      listen();
      refreshAll();
    } else if (document.hidden && localStorage.getItem('chime') !== 'yes') hangUp();
  });
  if (!document.hidden) listen();
}

const wish = document.getElementById('chime');
if (wish) {
  wish.checked = localStorage.getItem('chime') === 'yes';
  wish.addEventListener('change', () => {
    localStorage.setItem('chime', wish.checked ? 'yes' : 'no');
    if (wish.checked) chime();
  });
}
