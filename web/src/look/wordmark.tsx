/** Our mark: a pebble that has broken in two and still fits. */
export function Wordmark() {
  return (
    <svg width="24" height="20" viewBox="0 0 24 20" aria-hidden="true">
      <path
        d="M9.3 2.2C4.6 2.6 1.4 6.3 1.9 11c.4 4.3 3.6 6.9 8.2 6.6 1.5-.1 2.3-.5 2.3-.5L10.6 9.6z"
        fill="var(--kp-accent)"
      />
      <path d="M12.3 2.3l1.6 6.9-.1 7.3c4.6-1 8.6-3.5 8.3-7.4-.3-4.3-4.6-7-9.8-6.8z" fill="var(--kp-ink)" />
    </svg>
  );
}
