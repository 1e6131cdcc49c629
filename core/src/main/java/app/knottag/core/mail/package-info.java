/**
 * A copier's mail: its settings judged together before anybody types them, and how many pages go into one mail. Start at
 * {@link app.knottag.core.mail.MailSheet}. Types are immutable.
 *
 * <p>May use: figure.
 */
package app.knottag.core.mail;
