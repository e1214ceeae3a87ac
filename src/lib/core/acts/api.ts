/** Where the public API stands, on the server's own origin. */
export const API = '/api/v1';
