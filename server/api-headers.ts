/** Answers of the API are data: nothing in them is a page, and nobody between keeps them. */
export const API_HEADERS = {
  'X-Content-Type-Options': 'nosniff',
  'Content-Security-Policy': "default-src 'none'; frame-ancestors 'none'",
  'Cache-Control': 'no-store',
} as const;
