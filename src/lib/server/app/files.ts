/** Headers for a drawing that is shown as a picture or saved: nothing in it may run. */
export function svgHeaders(options: { fileName?: string; forever?: boolean }): Record<string, string> {
  return {
    'content-type': 'image/svg+xml; charset=utf-8',
    'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; sandbox",
    'x-content-type-options': 'nosniff',
    'cache-control': options.forever ? 'private, max-age=31536000, immutable' : 'no-cache',
    ...(options.fileName ? { 'content-disposition': attachment(options.fileName) } : {}),
  };
}

/** Headers for a file that is handed over: it is saved, nothing in it may run, and nobody guesses what it is. */
export function fileHeaders({
  fileName,
  mediaType,
}: {
  fileName: string;
  mediaType: string;
}): Record<string, string> {
  return {
    'content-type': mediaType,
    'content-disposition': attachment(fileName),
    'content-security-policy': "default-src 'none'; sandbox",
    'x-content-type-options': 'nosniff',
  };
}

/** A content-disposition that saves the answer under `fileName` (RFC 6266 with its UTF-8 form). */
export function attachment(fileName: string): string {
  const plain = fileName.replace(/[^\x20-\x7e]|["\\]/g, '_');
  return `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(fileName)}`;
}
