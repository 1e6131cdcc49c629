/**
 * What is really there against the record: one join of everything that was seen with everything that is known. Start at
 * {@link app.knottag.core.audit.Audit}.
 *
 * <p>May use: address, hardware, kind, plan, reach, runbook, status, time.
 */
package app.knottag.core.audit;
