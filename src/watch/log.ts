import { type Logger, pino } from 'pino';
import { requestId } from './request';

const shared = globalThis as typeof globalThis & { logistraLog?: Logger };

/**
 * What happens, a line of JSON each: when, which server, which request. Nothing that says who anybody is: no names, addresses,
 * paths with ids, or texts that people wrote.
 */
export function log(): Logger {
  shared.logistraLog ??= pino({
    base: { server: process.env.SERVER_NAME ?? `process ${process.pid}` },
    level: process.env.LOG_LEVEL ?? 'info',
    timestamp: () => `,"time":"${new Date().toISOString()}"`,
    formatters: { level: (level) => ({ level }) },
    mixin: () => {
      const request = requestId();
      return request ? { request } : {};
    },
  });
  return shared.logistraLog;
}

/** Where an error was thrown, and which: a driver's own message quotes the values of a statement, so only its code is kept. */
export function faultOf(error: unknown): { fault: string; at: readonly string[] } {
  const {
    name,
    code,
    parent,
    stack = '',
  } = (error ?? {}) as {
    name?: string;
    code?: unknown;
    parent?: { code?: unknown };
    stack?: string;
  };
  const at = stack
    .split('\n')
    .filter((line) => /^\s+at /.test(line))
    .slice(0, 8)
    .map((line) => line.trim());
  return { fault: [name ?? typeof error, parent?.code ?? code].filter((part) => part !== undefined).join(' '), at };
}
