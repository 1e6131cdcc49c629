/**
 * A made-up garden centre, worked through by made-up hands. Start at {@link app.knottag.server.demo.DemoData}.
 *
 * <p>May use: account, change, onboard, plan, probe, record, register, verify, watch, worksheet.
 */
package app.knottag.server.demo;
