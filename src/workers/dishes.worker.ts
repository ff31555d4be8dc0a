import { parentPort, workerData } from 'node:worker_threads';
import { type CourseDishes, dishesForCourse } from '@/core/recipes/course-dishes';

parentPort?.postMessage(dishesForCourse(workerData as CourseDishes));
