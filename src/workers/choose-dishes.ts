import { Worker } from 'node:worker_threads';
import { type CourseDishes, type CourseDishesAnswer, dishesForCourse } from '@/core/recipes/course-dishes';
import { ask } from './ask';

/** So many recipes are looked through at once: a thread would take longer to start. */
const FEW_RECIPES = 30;

/** Dishes for a course; of many recipes on a thread of its own, so that the serving thread never waits for it. */
export async function dishesOfCourse(task: CourseDishes): Promise<CourseDishesAnswer> {
  if (task.recipes.length <= FEW_RECIPES) return dishesForCourse(task);
  return ask(new Worker(new URL('./dishes.worker.ts', import.meta.url), { workerData: task }));
}
