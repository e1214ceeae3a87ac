export { makeTemplate as default } from './world';
