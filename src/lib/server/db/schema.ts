/** All tables, by what they are about. */
export * from './schema/studio';
export * from './schema/library';
export * from './schema/layouts';
export * from './schema/shown';
export * from './schema/people';
