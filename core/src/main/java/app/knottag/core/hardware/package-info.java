/**
 * MACs and serials: reading and judging what stands on a label. Start at
 * {@link app.knottag.core.hardware.MacReader}. May use {@code core.reading} only.
 *
 * <p>May use: log, reading.
 */
package app.knottag.core.hardware;
