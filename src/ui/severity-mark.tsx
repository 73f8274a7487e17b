/** The mark of a finding: shape and colour, and a word for those who do not see it. */
export function SeverityMark({
  severity,
  size = 12,
  label = true,
}: {
  severity: 'stop' | 'caution' | 'hint';
  size?: number;
  label?: boolean;
}) {
  const shape =
    severity === 'stop' ? (
      <path d="M4 1h4l3 3v4l-3 3H4L1 8V4z" fill="var(--stop)" />
    ) : severity === 'caution' ? (
      <path d="M6 1 11.4 11H.6z" fill="var(--caution-mark)" />
    ) : (
      <circle cx="6" cy="6" r="4" fill="none" stroke="var(--hint)" strokeWidth="2" />
    );
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 12 12"
      role={label ? 'img' : undefined}
      aria-label={label ? severity : undefined}
      aria-hidden={label ? undefined : true}
      className="shrink-0"
    >
      {shape}
    </svg>
  );
}
