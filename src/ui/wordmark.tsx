/** The name with its sign: a thread with one knot tied. Where it is `small`, a phone shows the sign alone. */
export function Wordmark({ small }: { small?: boolean }) {
  return (
    <span className="inline-flex items-center gap-2 font-display text-xl font-bold">
      <svg
        aria-hidden="true"
        width="34"
        height="20"
        viewBox="0 0 34 20"
        fill="none"
        stroke="currentColor"
        strokeWidth="2.4"
        strokeLinecap="round"
      >
        <path d="M1 12c5 0 7-7 12-7s6 10 1 10-4-10 4-10 6 8 15 5" />
      </svg>
      <span className={small ? 'max-sm:sr-only' : ''}>Logistra</span>
    </span>
  );
}
