interface NoticeProps {
  kind: "weather" | "works";
}

export function Notice({ kind }: NoticeProps) {
  return (
    <aside className={`notice notice-${kind}`} role="status">
      <strong>Storm warning:</strong> the Tallow stays in the harbour until further notice.
    </aside>
  );
}
