import './styles/app.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './app.tsx';
import { TooltipProvider } from './ui/tooltip.tsx';

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <TooltipProvider delayDuration={500}>
      <App />
    </TooltipProvider>
  </StrictMode>,
);
