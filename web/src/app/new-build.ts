const RELOADED = 'plate-fold reloaded';
/** Not again within, ms: a page that breaks for another reason does not load itself for ever. */
const ONCE_MS = 10_000;

/** Whether the server answers, and with a page that is made of other parts than this one. */
async function isNewBuild(): Promise<boolean> {
  const mine = document.querySelector('script[type="module"][src]')?.getAttribute('src');
  try {
    const r = await fetch('/', { cache: 'no-store' });
    return mine != null && r.ok && !(await r.text()).includes(mine);
  } catch {
    // the server is away: what this page has is all there is, and it is kept
    return false;
  }
}

/** A page that was open while a new version was built asks for parts that are gone: it loads itself anew, once. */
export function reloadAfterNewBuild(): void {
  window.addEventListener('vite:preloadError', () => {
    void isNewBuild().then(is => {
      const last = Number(sessionStorage.getItem(RELOADED) ?? 0);
      if (!is || Date.now() - last < ONCE_MS) return;
      sessionStorage.setItem(RELOADED, String(Date.now()));
      location.reload();
    });
  });
}
