// The evidence rail folds away, and stays so from page to page.
const SETTING = 'rail-folded';

/** Folds the rail away, or back. */
export function fold() {
  const bench = document.querySelector('.bench');
  if (!bench) return;
  const folded = bench.classList.toggle('folded');
  localStorage.setItem(SETTING, folded ? 'yes' : 'no');
}

if (localStorage.getItem(SETTING) === 'yes') document.querySelector('.bench')?.classList.add('folded');
