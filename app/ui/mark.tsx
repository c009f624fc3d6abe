export function Mark({ large = false }: { large?: boolean }) {
  return (
    <span className={`inline-flex items-center gap-2.5 font-semibold ${large ? "text-2xl" : "text-[1.02rem]"}`}>
      <svg
        width={large ? 32 : 22}
        height={large ? 26 : 18}
        viewBox="0 0 22 18"
        fill="none"
        strokeWidth="2.6"
        aria-hidden="true"
      >
        <path d="M1 4.5h6M15 13.5h6" stroke="var(--ink)" />
        <path d="M1 13.5h5l9-9h6" stroke="var(--sea)" />
      </svg>
      Juncteral
    </span>
  );
}
