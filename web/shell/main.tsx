import { present } from '../../core/errors/known';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { RouterProvider } from 'react-router/dom';
import { router } from './router';
import { store } from '../ground/api/store';
import '../ground/theme.css';

// A page that the browser kept, and shows again by its Back key, may be of somebody who has signed out.
window.addEventListener('pageshow', (event) => event.persisted && window.location.reload());

createRoot(present(document.getElementById('root'))).render(
  <StrictMode>
    <Provider store={store}>
      <RouterProvider router={router} />
    </Provider>
  </StrictMode>,
);
