/** Spur's sign: a siding that leaves the main rail, with a stop on each. */
export function Wordmark({ size = 24 }: { readonly size?: number }) {
  return (
    <span className="inline-flex items-center gap-2 font-display font-semibold" style={{ fontSize: size * 0.85 }}>
      <svg width={size} height={size} viewBox="0 0 32 32" aria-hidden className="text-accent">
        <path
          d="M11 3v26M11 11c0 7 11 4 11 11v7"
          fill="none"
          stroke="currentColor"
          strokeWidth="3"
          strokeLinecap="round"
        />
        <circle cx="11" cy="10" r="4" fill="var(--paper)" stroke="currentColor" strokeWidth="3" />
        <circle cx="22" cy="23" r="4" fill="var(--paper)" stroke="currentColor" strokeWidth="3" />
      </svg>
      Spur
    </span>
  );
}
