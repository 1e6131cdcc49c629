package app.knottag.core.mail;

import app.knottag.core.figure.Figures;
import app.knottag.core.figure.Judgement;
import app.knottag.core.figure.Judgement.Draft;
import app.knottag.core.figure.SheetField;
import app.knottag.core.figure.Worksheet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** Relay, port, security, sign-in and sender of a copier, judged together. No password is asked for or kept. */
public final class MailSheet implements Worksheet {

    private static final int PLAIN_PORT = 25, TLS_PORT = 465, SUBMISSION_PORT = 587;
    private static final String ADDRESS =
            "[A-Za-z0-9.!#$%&'*+/=?^_`{|}~-]{1,64}@([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?\\.)+[a-z]{2,63}";
    private static final String HOST = "([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?)(\\.[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?)*";

    /** How the connection is made secure (RFC 3207, RFC 8314). */
    enum Security {
        STARTTLS("upgraded (STARTTLS)"),
        TLS("from the start (TLS)"),
        NONE("none");

        private final String words;

        Security(String words) {
            this.words = words;
        }
    }

    /** How it signs in. */
    enum SignIn {
        DEVICE("A sign-in made for devices"),
        PASSWORD("The ordinary password of a mailbox"),
        NONE("None: the relay knows its address");

        private final String words;

        SignIn(String words) {
            this.words = words;
        }
    }

    /** Whose relay it is. */
    enum Whose {
        PROVIDER("A mail provider's"),
        SITE("The site's own");

        private final String words;

        Whose(String words) {
            this.words = words;
        }
    }

    @Override
    public String key() {
        return "mail";
    }

    @Override
    public String title() {
        return "Mail settings of the copier";
    }

    @Override
    public String purpose() {
        return "Judges its mail settings together, before anybody types them on its screen. Whether the relay really takes them shows "
                + "only in a conversation with it.";
    }

    @Override
    public List<SheetField> fields() {
        return List.of(
                SheetField.words("relay", "Relay").hint("A name such as mail.shop.example, or an address."),
                SheetField.pick("whose", "Whose relay", Whose.values(), w -> w.words),
                SheetField.count("port", "Port", 1, 65_535).usual("587"),
                SheetField.pick(
                        "security",
                        "Security",
                        Security.values(),
                        s -> s.words.substring(0, 1).toUpperCase(Locale.ROOT) + s.words.substring(1)),
                SheetField.pick("signIn", "Sign-in", SignIn.values(), s -> s.words),
                SheetField.words("user", "User name").optional(),
                SheetField.words("sender", "Sender’s address").hint("What stands behind From."),
                SheetField.yesNo("allowed", "Is this sender allowed for this mailbox, when they differ?"),
                SheetField.yesNo("certificate", "Does it check the certificate?")
                        .usual("YES"),
                SheetField.yesNo("resolvers", "Has it resolvers that answer?").usual("YES"),
                SheetField.yesNo("clock", "Is its clock right?").usual("YES"),
                SheetField.count("retries", "Retries", 0, 99).usual("0"));
    }

    @Override
    public Judgement judge(Figures f) {
        var draft = new Draft();
        String relay = f.words("relay").toLowerCase(Locale.ROOT);
        relay(draft, f, relay);
        security(draft, f);
        signIn(draft, f);
        sender(draft, f);
        if (!f.yes("certificate"))
            draft.warn(
                    "CERTIFICATE",
                    "certificate",
                    "Without this check anybody in between can take the sign-in.",
                    "Leave it on. It fails? Look at its clock and at the relay’s name first.");
        if (!f.yes("clock") && f.pick("security", Security.class) != Security.NONE)
            draft.stop(
                    "CLOCK",
                    "clock",
                    "With a wrong clock every certificate is refused.",
                    "Set its clock and zone first.");
        if (f.count("retries") > 0)
            draft.warn(
                    "RETRIES",
                    "retries",
                    "What fails once fails again, and repeats hide it.",
                    "Set 0, so that a failure shows at the copier.");
        return draft.result("SETTINGS", "To type", written(f, relay)).done();
    }

    private static String written(Figures f, String relay) {
        return relay + ", port " + f.count("port") + ", "
                + "security " + f.pick("security", Security.class).words
                + (f.words("user").isEmpty() ? "" : ", as " + f.words("user"));
    }

    private static void relay(Draft draft, Figures f, String relay) {
        boolean address = relay.matches("[0-9.]+");
        if (!relay.matches(HOST) || relay.length() > 253 || address && !relay.matches("([0-9]{1,3}\\.){3}[0-9]{1,3}"))
            draft.stop(
                    "RELAY",
                    "relay",
                    "“" + f.words("relay") + "” is no name of a relay.",
                    relay.contains("@")
                            ? "That is a mail address: ask for the name of the outgoing server."
                            : "Such as mail.shop.example, without http and without a path.");
        else if (address && f.yes("certificate") && f.pick("security", Security.class) != Security.NONE)
            draft.stop(
                    "ADDRESS_NOT_NAME",
                    "relay",
                    "A certificate is made out to a name; with an address the check fails.",
                    "Type the relay’s name.");
        else if (!address && !f.yes("resolvers"))
            draft.stop(
                    "RESOLVERS",
                    "resolvers",
                    "Without resolvers it cannot find “" + relay + "”.",
                    "Enter the segment’s resolvers, and save.");
        else if (!address && !relay.contains("."))
            draft.warn(
                    "SHORT_NAME",
                    "relay",
                    "“" + relay + "” is a short name: a copier often has no search list.",
                    "Type the whole name.");
    }

    private static void security(Draft draft, Figures f) {
        var security = f.pick("security", Security.class);
        int port = f.count("port");
        if (port == TLS_PORT && security != Security.TLS)
            draft.stop(
                    "PORT_SECURITY",
                    "security",
                    "Port 465 speaks securely from the start; with "
                            + (security == Security.NONE ? "no security" : "an upgrade") + " both wait for the other.",
                    "465 with security from the start, or 587 with the upgrade.");
        else if (port != TLS_PORT
                && security == Security.TLS
                && Set.of(PLAIN_PORT, SUBMISSION_PORT).contains(port))
            draft.stop(
                    "PORT_SECURITY",
                    "security",
                    "Port " + port + " begins in the open; security from the start gets no answer that it understands.",
                    "587 with the upgrade, or 465 with security from the start.");
        else if (port == PLAIN_PORT && f.pick("whose", Whose.class) == Whose.PROVIDER)
            draft.stop(
                    "PORT_25",
                    "port",
                    "Port 25 is between mail servers, and most lines shut it.",
                    "Use 587 with the upgrade.");
        else if (!Set.of(PLAIN_PORT, TLS_PORT, SUBMISSION_PORT).contains(port))
            draft.warn(
                    "PORT",
                    "port",
                    "Mail leaves by 587, 465 or, inside, 25; " + port + " is unusual.",
                    "Ask whoever runs the relay.");
        if (security == Security.NONE && f.pick("signIn", SignIn.class) != SignIn.NONE)
            draft.stop(
                    "OPEN_SIGN_IN",
                    "security",
                    "The sign-in goes over the line for anybody to read.",
                    "587 with the upgrade; a relay that cannot takes no sign-in.");
    }

    private static void signIn(Draft draft, Figures f) {
        var signIn = f.pick("signIn", SignIn.class);
        if (signIn == SignIn.NONE && f.pick("whose", Whose.class) == Whose.PROVIDER)
            draft.stop(
                    "NO_SIGN_IN",
                    "signIn",
                    "A provider’s relay takes nothing from somebody it does not know.",
                    "A mailbox of the copier’s own, with a sign-in made for devices.");
        if (signIn == SignIn.PASSWORD && f.pick("whose", Whose.class) == Whose.PROVIDER)
            draft.warn(
                    "ORDINARY_PASSWORD",
                    "signIn",
                    "Many providers no longer take the ordinary password from a device.",
                    "Have a sign-in for devices made for its mailbox. Never switch a weaker sign-in on for all.");
        if (signIn == SignIn.NONE) return;
        if (f.words("user").isEmpty())
            draft.stop(
                    "NO_USER",
                    "user",
                    "It signs in, and no user name is noted.",
                    "In most cases the whole mail address of its mailbox.");
        else if (!f.words("user").contains("@"))
            draft.warn(
                    "SHORT_USER",
                    "user",
                    "“" + f.words("user") + "” is no whole address.",
                    "In most cases the user name is the whole mail address.");
    }

    private static void sender(Draft draft, Figures f) {
        String sender = f.words("sender").toLowerCase(Locale.ROOT),
                user = f.words("user").toLowerCase(Locale.ROOT);
        if (!sender.matches(ADDRESS)
                || sender.length() > 254
                || sender.contains("..")
                || sender.startsWith(".")
                || sender.contains(".@")) {
            draft.stop(
                    "SENDER",
                    "sender",
                    "“" + f.words("sender") + "” is no mail address.",
                    "Such as copier@shop.example.");
            return;
        }
        if (f.pick("signIn", SignIn.class) != SignIn.NONE
                && user.contains("@")
                && !sender.equals(user)
                && !f.yes("allowed"))
            draft.stop(
                    "OTHER_SENDER",
                    "sender",
                    "It signs in as " + f.words("user") + " and sends as " + f.words("sender")
                            + ": the relay refuses the sender.",
                    "Use the mailbox’s own address, or have this one allowed for it.");
    }
}
