export * from './people';
export * from './project';
export * from './places';
export * from './documents';
export * from './trail';
export * from './releases';
export * from './mail';
export * from './installation';
