export function Loading({ what }: { what: string }) {
  return (
    <p className="text-secondary" role="status">
      {what} …
    </p>
  );
}
