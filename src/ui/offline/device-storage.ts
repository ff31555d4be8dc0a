import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { DeviceStorage, Queued } from './queue';

interface Device extends DBSchema {
  events: { key: number; value: { queue: string; id: string; event: unknown }; indexes: { queue: string; id: string } };
}

let device: Promise<IDBPDatabase<Device>> | undefined;

const opened = () => {
  device ??= openDB<Device>('logistra', 1, {
    upgrade(db) {
      const events = db.createObjectStore('events', { autoIncrement: true });
      events.createIndex('queue', 'queue');
      events.createIndex('id', 'id', { unique: true });
    },
  });
  return device;
};

/** The events of one queue in the browser's own database, in the order in which they were made. */
export const deviceStorage = <Event extends Queued>(queue: string): DeviceStorage<Event> => ({
  async load() {
    const rows = await (await opened()).getAllFromIndex('events', 'queue', queue);
    return rows.map(({ event }) => event as Event);
  },
  async put(events) {
    const writing = (await opened()).transaction('events', 'readwrite', { durability: 'strict' });
    await Promise.all([...events.map((event) => writing.store.add({ queue, id: event.id, event })), writing.done]);
  },
  async remove(ids) {
    const writing = (await opened()).transaction('events', 'readwrite');
    const keys = await Promise.all(ids.map((id) => writing.store.index('id').getKey(id)));
    await Promise.all([...keys.flatMap((key) => (key === undefined ? [] : [writing.store.delete(key)])), writing.done]);
  },
});
