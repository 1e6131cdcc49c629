/**
 * The register as an open file. Start at {@link app.knottag.core.register.RegisterFile}.
 */
package app.knottag.core.register;
