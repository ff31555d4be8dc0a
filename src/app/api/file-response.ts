/** A file to be saved or opened, never kept by caches: it may hold families' data. */
export function fileResponse(body: BodyInit, type: string, name: string, inline = false): Response {
  const plain = name
    .normalize('NFKD')
    .replace(/[^\w.-]+/g, '-')
    .replace(/-+/g, '-');
  return new Response(body, {
    headers: {
      'content-type': type,
      'content-disposition': `${inline ? 'inline' : 'attachment'}; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`,
      'cache-control': 'no-store',
      'x-content-type-options': 'nosniff',
    },
  });
}
