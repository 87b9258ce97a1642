import './styles/app.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Toaster } from 'sonner';
import { App } from './app.tsx';
import { TooltipProvider } from './ui/tooltip.tsx';

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <TooltipProvider delayDuration={500}>
      <App />
      <Toaster
        position="bottom-left"
        offset={{ bottom: '4rem' }}
        toastOptions={{
          // What is told lies over rows that somebody may be about to click: the click goes through to them.
          className: '!pointer-events-none !bg-raised !text-ink !border-edge !font-sans !text-body',
          classNames: {
            actionButton: '!pointer-events-auto !bg-accent !text-on-accent',
            cancelButton: '!pointer-events-auto !bg-sunken !text-ink',
          },
          duration: 7000,
        }}
      />
    </TooltipProvider>
  </StrictMode>,
);
