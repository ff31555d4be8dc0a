import { AsyncLocalStorage } from 'node:async_hooks';

/** Which request of a browser this is done for, through web server, database and background process. */
type Requests = AsyncLocalStorage<string>;

/** The web server (scripts/serve.mjs) fills it; one for the whole process, whatever loads this. */
const shared = globalThis as typeof globalThis & { logistraRequest?: Requests };

function requests(): Requests {
  shared.logistraRequest ??= new AsyncLocalStorage();
  return shared.logistraRequest;
}

/** The id of the request under way; '' outside one. */
export const requestId = (): string => requests().getStore() ?? '';

/** Does something for a request that began elsewhere. */
export const forRequest = <Result>(id: string, work: () => Result): Result => requests().run(id, work);
