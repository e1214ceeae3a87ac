/** Where the public API stands, on the server's own origin. */
export const API = '/api/v1';

/**
 * Says that a POST asks a question and changes nothing: what does not fit in an address comes as its JSON body. Proxies
 * and servers take addresses of about 8 KB.
 */
export const METHOD_OVERRIDE = 'x-http-method-override';
