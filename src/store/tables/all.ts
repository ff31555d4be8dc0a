// Every table of the database: those of each room.
export * from './access';
export * from './countdown';
export * from './equipment';
export * from './handout';
export * from './kits';
export * from './messages';
export * from './packing';
export * from './plan';
export * from './programme';
export * from './recipes';
export * from './roll';
export * from './work';
