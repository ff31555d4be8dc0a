import { Temporal } from 'temporal-polyfill';
import { SimulatedPrinter } from '@/devices/label-printer';
import { SimulatedGateway } from '@/devices/message-gateway';
import { labelsPdf } from '@/formats/packing/labels-pdf';
import { lookAtClasses } from '@/services/classday/outlook';
import { askAfter } from '@/services/closeout/asking-after';
import { askByItself } from '@/services/crew/asking';
import { eraseEnded } from '@/services/crew/people';
import { ServiceError } from '@/services/errors';
import type { Context, Role } from '@/services/gate/gate';
import { isOpen, withLink } from '@/services/messages/link-place';
import { labelsToPrint } from '@/services/packing/labels';
import { clearOut } from '@/services/privacy/retention';
import { contextFor, surroundings } from '@/services/runtime';
import type { TakenJob } from '@/store/jobs';
import { markSent } from '@/store/messages';
import { findOne } from '@/store/query';
import type { Store } from '@/store/store';
import { type Handler, JobRefused } from './work';

/** The one who asked for a job, as they are now: someone removed meanwhile gets nothing done. */
async function askerOf(store: Store, job: TakenJob): Promise<Context> {
  const where = { id: job.createdBy ?? '', programmeId: job.programmeId };
  const member = await findOne(store.db, store.db.models.member, { ...where, status: 'active' });
  const token = member ? undefined : await findOne(store.db, store.db.models.apiToken, { ...where, revokedAt: null });
  const asker = member ?? token;
  if (!asker) throw new JobRefused('The one who asked for it is no longer a member.');
  return contextFor({ id: asker.id, programmeId: job.programmeId, role: asker.role as Role, name: asker.name });
}

/** What each kind of job does. */
export function handlersFor(store: Store): Readonly<Record<string, Handler>> {
  const gateway = new SimulatedGateway();
  const printer = new SimulatedPrinter(store);
  return {
    'send message': async (job) => {
      const { messageId } = job.input as { messageId: string };
      const message = await findOne(store.db, store.db.models.message, { id: messageId });
      if (!message || message.sentAt || !message.sentTo) return null;
      // A gateway knows a message by its id: sent twice, it arrives once.
      const now = new Date(Temporal.Now.instant().epochMilliseconds);
      const { id, sentTo: to, subject, linkId } = message;
      const link = linkId === null ? undefined : await findOne(store.db, store.db.models.accessLink, { id: linkId });
      // A link that was used or has ended meanwhile is not sent any more.
      if (linkId !== null && !(link && isOpen(link, now))) return { notSent: 'the link ended first' };
      const body = linkId === null ? message.body : withLink(surroundings(), message.body, linkId);
      await gateway.send({ id, to, subject, body });
      await markSent(store.db, {
        messageId,
        now,
      });
      return null;
    },
    'print labels': async (job, { progress }) => {
      const { sessionId, paper } = job.input as { sessionId: string; paper: 'a4' | 'letter' };
      const { labels, title, sheet } = await answered(labelsToPrint(await askerOf(store, job), { sessionId, paper }));
      await progress(10);
      const pdf = await labelsPdf(labels, paper).catch((error: Error) => {
        throw error.name === 'GlyphMissing' ? new JobRefused(error.message) : error;
      });
      await progress(90);
      const { programmeId } = job;
      await printer.print({ id: job.id, programmeId, sessionId, title, pdf, sheet });
      return { printOutId: job.id, labels: labels.length };
    },
    'clear out': async (job) => clearOut(store, job.programmeId, Temporal.Now.instant()),
    'look at classes': async ({ programmeId }) => ({
      classes: await lookAtClasses(contextFor({ id: programmeId, programmeId, role: 'coordinator', name: 'Logistra' })),
    }),
    'ask families': async ({ programmeId }) => ({
      asked: await askAfter(contextFor({ id: programmeId, programmeId, role: 'coordinator', name: 'Logistra' })),
    }),
    'ask the crew': async ({ programmeId }) => {
      const context = contextFor({ id: programmeId, programmeId, role: 'coordinator', name: 'Logistra' });
      return { ...(await askByItself(context)), erased: await eraseEnded(context) };
    },
  };
}

/** What a service refuses will be refused the next time too. */
async function answered<T>(work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (error instanceof ServiceError) throw new JobRefused(error.message);
    throw error;
  }
}
