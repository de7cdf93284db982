import type { Transaction } from "sequelize";
import { settleJob } from "../../store/jobs/jobs.ts";
import { Stopped, type Progress } from "../../threads/progress.ts";
import type { WithStore } from "../ground/parts.ts";

/**
 * Keeps what a job came to within the transaction that does its work: whoever finds the one finds the
 * other, and a process that dies between them leaves neither. Throws Stopped when the job is another's by now.
 */
export async function settle(
  desk: WithStore,
  { job }: Progress,
  result: unknown,
  transaction: Transaction,
): Promise<void> {
  if (!job) return;
  const [mine] = await settleJob(desk.store, job, result, transaction);
  if (!mine) throw new Stopped();
}
