export default function Loading() {
  return (
    <p role="status" className="p-4 text-soft" data-fetching>
      Fetching the sheet …
    </p>
  );
}
