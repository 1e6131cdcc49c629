/**
 * The register as an open file, and the registries of a site: what each wants and holds of a unit, judged before it is
 * handed in, compared with what is really there, and mended when a unit changes. Start at
 * {@link app.knottag.core.register.RegistrationJudge} and {@link app.knottag.core.register.Registration}; the file of
 * the whole register is {@link app.knottag.core.register.RegisterFile}.
 *
 * <p>May use: address, hardware, kind, log, plan, reading, runbook, time.
 */
package app.knottag.core.register;
