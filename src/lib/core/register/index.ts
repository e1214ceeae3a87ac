/** The register: what a project must deliver, when it was planned, and when it comes (rules G1 to G7). */

export * from './deliverable';
export * from './durations';
export * from './forecast';
export * from './list';
export * from './load';
export * from './missing';
export * from './numbers';
export * from './progress';
export * from './report';
export * from './stages';
export * from './template';
export * from './words';
