/** The product's mark: a stroke of a highlighter pen under a line of ink. */
export function Mark() {
  return (
    <svg viewBox="0 0 30 30" width="30" height="30" aria-hidden>
      <path d="M4 21.5 C 10 18.5, 19 18, 26 19.5 L 26 25 C 18 23.6, 11 24, 4 26.8 Z" fill="var(--marigold)" />
      <path
        d="M6 20 L 13.6 4.5 L 16.4 4.5 L 24 20 M9.4 14.4 L 20.6 14.4"
        fill="none"
        stroke="currentColor"
        strokeWidth="2.1"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </svg>
  );
}
