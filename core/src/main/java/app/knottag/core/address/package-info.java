/**
 * IPv4 addresses, prefixes, segments and pools, and the reader of typed addresses. Start at
 * {@link app.knottag.core.address.AddressReader}. May use {@code core.reading} only.
 *
 * <p>May use: reading.
 */
package app.knottag.core.address;
