/** Gets a list as CSV; `params` are those the list itself was asked with. */
export function Download({
  path,
  params = {},
  children = "CSV",
}: {
  path: string;
  params?: Record<string, unknown>;
  children?: string;
}) {
  const query = new URLSearchParams();
  for (const [key, value] of Object.entries(params)) {
    if (Array.isArray(value)) value.forEach((one) => query.append(key, String(one)));
    else if (value !== undefined && value !== null && value !== "") query.set(key, String(value));
  }
  const tail = query.toString();
  return (
    <a href={tail ? `${path}?${tail}` : path} download className="go inline-flex min-h-6 items-center px-1">
      {children}
    </a>
  );
}
