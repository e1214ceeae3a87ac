/** Stands in for the framework's state of the page in tests of parts: no project, nothing under way. */
export const page = { data: {}, params: {}, url: new URL('http://cupboard.test/') };
export const navigating = { to: null };
