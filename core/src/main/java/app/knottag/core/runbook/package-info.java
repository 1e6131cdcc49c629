/**
 * One endpoint's ordered steps, their gates and the read-back. Start at {@link app.knottag.core.runbook.Runbook}.
 */
package app.knottag.core.runbook;
