import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { RouterProvider } from 'react-router';
import { reloadAfterNewBuild } from './app/new-build';
import { attachPrinting } from './app/print';
import { router } from './app/routes';
import { announceTab } from './state/drafts';
import { attachToPage, store } from './state/store';
import './style.css';

reloadAfterNewBuild();
attachToPage();
attachPrinting();
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
