/**
 * Handing over: tag codes, label sheets in millimetres, what stands on a tag and whether it still holds, what is missing
 * before a site is ready, and what its packs say. Start at {@link app.knottag.core.handover.Readiness}.
 *
 * <p>May use: address, hardware, kind, plan, reach, runbook, time.
 */
package app.knottag.core.handover;
