package app.knottag.core.intake;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * A refusal of a mail server, by its enhanced status code (RFC 3463, RFC 4954, RFC 7372, RFC 7505) before its plain one
 * (RFC 5321).
 *
 * @param code reply code, 400..599, or 0 when only the enhanced one stands there
 * @param enhanced such as 5.7.8, or empty
 * @param text what it said
 */
public record MailReply(int code, String enhanced, String text) {

    private static final Pattern LINE = Pattern.compile(
            "(?i)(?:^|[^0-9.])([45][0-9]{2})(?:[ -]+#?(([45])\\.[0-9]{1,3}\\.[0-9]{1,3}))?(?![0-9.])[ -]*(.*)");
    private static final Pattern STATUS =
            Pattern.compile("(?im)^[ \\t>]*(?:final-)?status:\\s*([45]\\.[0-9]{1,3}\\.[0-9]{1,3})");
    private static final Pattern BARE =
            Pattern.compile("(?i)(?:^|[^0-9.])([45]\\.[0-7]\\.[0-9]{1,2})(?![0-9.])[ -]*(.*)");
    private static final Pattern MAILISH = Pattern.compile(
            "(?i)smtp|mail|status:|diagnostic|said:|mailbox|recipient|sender|relay|auth|user|password|starttls|tls|spam|"
                    + "spf|dkim|queue|message|quota|greylist|try again|temporar|command|domain|address|rejected|denied|"
                    + "blocked|connection|unavailable|service|size|large");

    /** What is to be changed. */
    public enum Field {
        RECIPIENT("Change the recipient: the address, letter by letter, or the entry in its address book."),
        RECIPIENT_FULL("Nothing to change here: the recipient's mailbox is full or shut. Tell its owner."),
        MAILBOX("Change the recipient or the sender: the server does not say which of the two it means."),
        SENDER("Change the sender: it must be the mailbox that signs in, or be allowed there."),
        SIZE("Change the scan: smaller, or black and white; it is too large."),
        SECURITY("Change security: switch the upgrade to TLS on."),
        SIGN_IN("Change the sign-in: user name or password, or a sign-in made for devices."),
        METHOD("Change the sign-in's method: the server wants a stronger one, or a sign-in made for devices."),
        RELAY("Change the relay: this one does not take mail from here."),
        HOST("Change the host or port, and compare with what the provider names."),
        NAMES(
                "Nothing to change on the device: the sender's domain lacks a record (SPF, DKIM or reverse name). Its owner mends it."),
        CONTENT("Change the message: its text, format or attachment is refused."),
        COMMAND(
                "Change the port: what answers there does not speak as a device needs. 587 with upgrade, or 465 secure."),
        COUNT("Change the number of recipients: fewer at once."),
        THEIRS("Nothing to change here: the mail system at the far end has a fault. Call its owner.");

        private final String words;

        Field(String words) {
            this.words = words;
        }

        /** Returns what to change, in a sentence. */
        public String words() {
            return words;
        }
    }

    /** Whether it is only put off, so that the same message may pass later. */
    public boolean temporary() {
        return enhanced.isEmpty() ? code >= 400 && code < 500 : enhanced.startsWith("4");
    }

    /** Returns the reply as it stands there, such as “550 5.1.1”. */
    public String said() {
        return code == 0 ? enhanced : enhanced.isEmpty() ? "" + code : code + " " + enhanced;
    }

    /** Returns what is to be changed. */
    public Field field() {
        String words = text.toLowerCase(Locale.ROOT);
        String rest = enhanced.isEmpty() ? "" : enhanced.substring(2);
        if (rest.isEmpty()) return byCode(words);
        return switch (rest) {
            case "1.1", "1.2", "1.3", "1.4", "1.5", "1.6", "1.9", "1.10" -> Field.RECIPIENT;
            case "1.7", "1.8" -> Field.SENDER;
            case "1.0" -> has(words, "sender", "from") ? Field.SENDER : Field.RECIPIENT;
            case "2.0", "2.1", "2.2", "2.4" -> Field.RECIPIENT_FULL;
            case "2.3", "3.4" -> Field.SIZE;
            case "3.3", "5.4", "5.5" -> Field.COMMAND;
            case "5.3" -> Field.COUNT;
            case "5.0", "5.1", "5.2" -> command(words);
            case "5.6", "7.8" -> Field.SIGN_IN;
            case "7.9" -> Field.METHOD;
            case "7.12", "7.13", "7.14" -> Field.SIGN_IN;
            case "7.4", "7.5", "7.6", "7.10", "7.11" -> Field.SECURITY;
            case "7.0" -> byCode(words);
            case "7.1", "7.2" -> policy(words);
            case "7.7" -> Field.CONTENT;
            case "7.20", "7.21", "7.22", "7.23", "7.24", "7.25", "7.26" -> Field.NAMES;
            case "7.27" -> Field.SENDER;
            default ->
                rest.startsWith("3.") || rest.startsWith("4.")
                        ? Field.THEIRS
                        : rest.startsWith("6.")
                                ? Field.CONTENT
                                : rest.startsWith("2.")
                                        ? Field.RECIPIENT_FULL
                                        : rest.startsWith("7.") ? policy(words) : byCode(words);
        };
    }

    private Field command(String words) {
        if (code == 530 || has(words, "starttls", "tls first")) return Field.SECURITY;
        if (has(words, "auth")) return Field.SIGN_IN;
        if (has(words, "mailbox unavailable", "user unknown")) return Field.RECIPIENT;
        return Field.COMMAND;
    }

    private Field policy(String words) {
        if (code == 530 && has(words, "tls", "encrypt")) return Field.SECURITY;
        if (code == 530 || code == 535 || code == 534 || has(words, "authenticat", "sign in", "log in", "login"))
            return Field.SIGN_IN;
        if (has(words, "spf", "dkim", "dmarc", "reverse", "ptr")) return Field.NAMES;
        if (has(words, "sender", "not owned", "send as", "from address", "mail from")) return Field.SENDER;
        if (has(words, "spam", "virus", "content", "attachment")) return Field.CONTENT;
        if (has(words, "user unknown", "no such user", "mailbox")) return Field.RECIPIENT;
        return Field.RELAY;
    }

    private Field byCode(String words) {
        return switch (code) {
            case 421, 450, 451 -> has(words, "auth") ? Field.SIGN_IN : Field.THEIRS;
            case 454 -> has(words, "tls") ? Field.SECURITY : Field.SIGN_IN;
            case 455 -> Field.COMMAND;
            case 452 ->
                has(words, "recipient") ? Field.COUNT : has(words, "mailbox") ? Field.RECIPIENT_FULL : Field.THEIRS;
            case 530, 538, 523 ->
                has(words, "auth", "sign", "log") && !has(words, "tls", "encrypt") ? Field.SIGN_IN : Field.SECURITY;
            case 535 -> Field.SIGN_IN;
            case 534 -> has(words, "mechanism", "weak") ? Field.METHOD : Field.SIGN_IN;
            case 500, 501, 502, 503, 504, 555 -> command(words);
            case 552 ->
                has(words, "mailbox", "quota") && !has(words, "size", "large") ? Field.RECIPIENT_FULL : Field.SIZE;
            case 556 -> Field.RECIPIENT;
            case 521 -> Field.HOST;
            case 550, 551, 553 -> mailbox(words);
            case 554 -> has(words, "spam", "virus", "content") ? Field.CONTENT : policy(words);
            default -> temporary() ? Field.THEIRS : Field.HOST;
        };
    }

    private static Field mailbox(String words) {
        if (has(words, "spf", "dkim", "dmarc", "reverse", "ptr")) return Field.NAMES;
        if (has(words, "relay")) return Field.RELAY;
        if (has(words, "sender", "not owned", "send as", "mail from", "from address")) return Field.SENDER;
        if (has(words, "authenticat", "sign in", "log in")) return Field.SIGN_IN;
        if (has(words, "user", "mailbox", "recipient", "no such", "address", "unknown", "not exist"))
            return Field.RECIPIENT;
        if (has(words, "spam", "virus", "content")) return Field.CONTENT;
        return has(words, "denied", "policy", "blocked", "block", "blacklist", "not allowed")
                ? Field.RELAY
                : Field.MAILBOX;
    }

    private static boolean has(String text, String... words) {
        for (String word : words) if (text.contains(word)) return true;
        return false;
    }

    /** Returns the reply with this code that stands in lines as a server sends them. */
    public static MailReply of(int code, List<String> lines) {
        return find(String.join("\n", lines))
                .filter(r -> r.code() == code)
                .orElse(new MailReply(code, "", lines.isEmpty() ? "" : lines.get(lines.size() - 1)));
    }

    /** Finds the refusal in a text: a dialogue, a notice that something could not be delivered, or one line. */
    static Optional<MailReply> find(String text) {
        var status = STATUS.matcher(text);
        String told = status.find() ? status.group(1) : "";
        var unfolded = text.replaceAll("\n[ \\t]+", " ");
        List<String> lines = unfolded.lines().limit(2_000).map(String::strip).toList();
        MailReply last = null;
        for (String line : lines) {
            var m = LINE.matcher(line);
            if (line.length() > 2_000 || !m.find()) continue;
            boolean first = line.matches("(?i)(?:>\\s*|<\\s*|s:\\s*|smtp;\\s*)?[45][0-9]{2}\\b.*");
            if (!first && !MAILISH.matcher(line).find()) continue;
            if (m.group(2) == null && !MAILISH.matcher(line).find() && !line.matches("[45][0-9]{2}")) continue;
            if (m.group(2) != null && m.group(1).charAt(0) != m.group(2).charAt(0)) continue;
            String enhanced = m.group(2) == null ? "" : m.group(2);
            // Of several lines of one reply the first with an enhanced code rules; of several replies the last.
            if (last != null && last.enhanced().equals(enhanced) && last.code() == Integer.parseInt(m.group(1)))
                last = new MailReply(last.code(), enhanced, last.text() + " " + m.group(4));
            else if (last == null || !enhanced.isEmpty() || last.enhanced().isEmpty())
                last = new MailReply(Integer.parseInt(m.group(1)), enhanced, m.group(4));
        }
        if (last != null)
            return Optional.of(
                    last.enhanced().isEmpty() && !told.isEmpty()
                            ? new MailReply(last.code(), told, last.text())
                            : last);
        if (!told.isEmpty()) return Optional.of(new MailReply(0, told, ""));
        for (String line : lines) {
            var m = BARE.matcher(line);
            if (line.length() <= 2_000 && m.find() && MAILISH.matcher(line).find())
                return Optional.of(new MailReply(0, m.group(1), m.group(2)));
        }
        return Optional.empty();
    }
}
