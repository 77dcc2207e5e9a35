export default function Loading() {
  return (
    <p role="status" className="p-4 text-soft">
      Fetching the sheet …
    </p>
  );
}
