import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { RouterProvider } from 'react-router';
import { announceTab } from './app/drafts';
import { router } from './app/routes';
import { store } from './app/store';
import './style.css';

// a page that was open while a new version was built asks for parts that are gone: it loads itself anew, once
const RELOADED = 'plate-fold reloaded';
window.addEventListener('vite:preloadError', e => {
  const last = Number(sessionStorage.getItem(RELOADED) ?? 0);
  if (Date.now() - last < 10_000) return;
  e.preventDefault();
  sessionStorage.setItem(RELOADED, String(Date.now()));
  location.reload();
});

await announceTab();
const root = document.getElementById('root');
if (root)
  createRoot(root).render(
    <StrictMode>
      <Provider store={store}>
        <RouterProvider router={router} />
      </Provider>
    </StrictMode>,
  );
