/**
 * One endpoint's ordered steps, their gates and the read-back. Start at {@link app.knottag.core.runbook.Runbook}.
 *
 * <p>May use: address, figure, hardware, kind, plan, reach, reading, status, time, worksheet.
 */
package app.knottag.core.runbook;
