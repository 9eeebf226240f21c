/** A view whose file is gone because the application was upgraded meanwhile is loaded anew. */

const MARK = 'ulvek.reloaded';
/** A second reload within this time would not help either [ms]. */
const AGAIN_MS = 30_000;

/** Listens for files that are gone; `reload` loads the page again. */
export function reloadAfterUpgrade(reload = () => window.location.reload()): void {
  window.addEventListener('vite:preloadError', (event) => {
    const last = Number(sessionStorage.getItem(MARK) ?? 0);
    if (Date.now() - last < AGAIN_MS) return;
    sessionStorage.setItem(MARK, String(Date.now()));
    event.preventDefault();
    reload();
  });
}
