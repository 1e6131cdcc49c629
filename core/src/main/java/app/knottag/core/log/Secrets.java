package app.knottag.core.log;

import app.knottag.core.reading.Typed;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Finds what must never stand on record: passwords, PINs, keys, tokens, and card numbers (ISO/IEC 7812). It knows what
 * people usually write in English, German, French, Spanish and Italian; it is a net with meshes, not a wall.
 */
public final class Secrets {

    /** Words that are always about a secret. */
    private static final String WORD = "pass(?:word|wort|wd|phrase|code)s?|passw|pwd|pw|psk|pin(?: "
            + "?code)?s?|pincode|puk|secret|kennwort|geheimzahl|losung|mot de "
            + "passe|mdp|contrase(?:n|\u00f1)a|parola "
            + "d'ordine|credentials?|zugangsdaten|identifiants|community(?: string)?|token|passe";

    /** Words that are about one only together with what they open. */
    private static final String KEYED =
            "(?:wi-?fi|wlan|wireless|network|netzwerk|netz|pre-?shared|shared|payment|private|privat|encryption|"
                    + "wpa[23]?|wep|api|access|product|security|secret|radius|vpn|admin|device|ger\u00e4te?|master|"
                    + "interface|hotspot|router|guest|gast|ssid)[ -]?(?:key|schl\u00fcssel|code|pin|clave|chiave)"
                    + "|(?:door|alarm|safe|unlock|access|entry|admin|security|gate|t\u00fcr|zugangs|alarm)[ -]?(?:code|zahl|pin)"
                    + "|(?:cl(?:e|\u00e9)|clave|chiave|codice|code|c(?:o|\u00f3)digo)(?: "
                    + "(?:de|du|di|del|d'|d'acc\u00e8s|de acceso|de "
                    + "la|d'accesso|accesso|acceso|acc\u00e8s|segreto|secret|confidentiel|wi-?fi|wpa2?|wlan|red|"
                    + "r\u00e9seau|rete|s\u00e9curit\u00e9|alarme|alarma|allarme|porte|puerta|porta))+";

    private static final String SAYS =
            "(?:\\s*(?:=>|->|:=|[:=\u2192\u2013])\\s*|\\s+(?:is|are|was|ist|lautet|est|es|\u00e8|set to|now|neu|new|changed to)\\s+:?\\s*)";

    /** Words that say where a secret is kept or how it stands, and are none. */
    private static final String HARMLESS =
            "(?:changed?|kept|set|unknown|still|not|in|at|on|by|with|and|or|missing|factory|see|none|no|printed|written|"
                    + "the|a|an|its|their|our|required|needed|as|same|default|own|to|for|from|of|was|is|are|new|old|"
                    + "needs?|must|ask|asked|given|handed|held|stored|safe|sealed|envelope|label|yes|ok|done|open|"
                    + "closed|reset|there|here|only|protected|pad|pads|type|length|policy|field|page|manager|geändert|"
                    + "im|in|beim|bei|liegt|unbekannt|siehe|noch|nicht|kein|keines|wurde|wird|vom|von|auf|steht|ist|"
                    + "hinterlegt|changé|dans|chez|voir|inconnu|aucun|au|sur|cambiada|en|ver|guardada|desconocida|"
                    + "cambiata|nel|nella|vedi|conservata|entered|typed|expires?|ends?|expired|lost|forgotten|tested|"
                    + "works?|unchanged|locked|blank|empty|left|all|every|each|any|both|per|this|that|these|those|"
                    + "between|within|after|before|when|where|who|which|n/a|tbd|-+|\\?+)";

    private static final Pattern TOLD = Pattern.compile("(?iu)(?<![\\p{L}\\p{N}])(?:" + KEYED + "|" + WORD + ")" + SAYS
            + "[\"'\u201e\u201c\u00ab(]?(?!" + HARMLESS + "(?![\\p{L}\\p{N}@#$!]))(\\S.{2,})");
    private static final Pattern BARE = Pattern.compile("(?iu)(?<![\\p{L}\\p{N}])(?:" + KEYED + "|" + WORD + ")\\s+(?!"
            + HARMLESS + "(?![\\p{L}\\p{N}]))(?=\\S*[\\d!#$%&*+@?])([^\\s,;]{3,})");
    private static final Pattern PAIR =
            Pattern.compile("(?iu)\\b(?:admin|administrator|root|user|benutzer|login|operator)\\s*[/:|"
                    + "]\\s*(?:(?=\\S*[\\d!#$%&*+@?])\\S{3,}|admin|password|passwort|root|toor|user|guest|geheim|"
                    + "default)(?![\\p{L}\\p{N}])");
    private static final Pattern SIGN_IN = Pattern.compile(
            "(?iu)\\b(?:log-?in|sign-?in|anmeldung|zugang|acceso|connexion)\\s*[:=]\\s*\\S+\\s+(?=\\S*[\\d!#$%&*+@?])\\S{4,}");
    private static final Pattern IN_ADDRESS = Pattern.compile("(?i)\\b[a-z][a-z0-9+.-]{1,15}://[^/\\s:@]+:[^/\\s@]+@");
    private static final Pattern TOKEN = Pattern.compile(
            "(?<![A-Za-z0-9+/=_-])(?:eyJ[A-Za-z0-9_-]{8,}\\.[A-Za-z0-9_-]{8,}\\.[A-Za-z0-9_-]*|[A-Za-z]{2,"
                    + "10}_[A-Za-z0-9]{20,}|AKIA[0-9A-Z]{16}|[A-Za-z0-9+/]{43}=|"
                    + "(?=[A-Za-z0-9_+/-]*[a-z])(?=[A-Za-z0-9_+/-]*[A-Z])(?=[A-Za-z0-9_+/-]*[0-9])[A-Za-z0-9_+/-]{20,}|"
                    + "[0-9a-fA-F]{32,})(?![A-Za-z0-9+/_-])");
    private static final Pattern BEARER =
            Pattern.compile("(?i)\\bbearer\\s+[A-Za-z0-9._~+/-]{12,}|-----BEGIN [A-Z ]*PRIVATE KEY");
    private static final Pattern CARD = Pattern.compile("(?<![\\d.])\\d(?:[ .\u00b7-]?\\d){12,18}(?![\\d])");

    private Secrets() {}

    /** Returns what kind of secret a free text seems to hold, in a word, or empty. */
    public static Optional<String> in(String text) {
        if (text == null || text.isBlank()) return Optional.empty();
        String plain = Typed.of(text).plain();
        if (cardIn(plain)) return Optional.of("card number");
        if (BEARER.matcher(plain).find()
                || TOKEN.matcher(plain).find()
                || IN_ADDRESS.matcher(plain).find()) return Optional.of("password, PIN or key");
        boolean told = toldIn(plain) || BARE.matcher(plain).find();
        return told || PAIR.matcher(plain).find() || SIGN_IN.matcher(plain).find()
                ? Optional.of("password, PIN or key")
                : Optional.empty();
    }

    /** A plain word told as a secret counts only right behind a mark; behind “is” it needs a figure or a sign. */
    private static boolean toldIn(String plain) {
        Matcher m = TOLD.matcher(plain);
        int from = 0;
        while (from <= plain.length() && m.find(from)) {
            String before = plain.substring(m.start(), m.start(1)).toLowerCase(Locale.ROOT);
            String value = m.group(1).split("\\s", 2)[0];
            boolean mark = before.matches("(?s).*[:=>\u2192]\\s*[\"'\u201e\u201c\u00ab(]?");
            boolean figures =
                    m.group(1).replaceAll("\\s", "").matches("[0-9]{3,}.*") || value.matches(".*[\\d!#$%&*+@?].*");
            if (figures || mark && value.replaceAll("[\\p{Punct}]", "").length() >= 3) return true;
            from = m.start() + 1;
        }
        return false;
    }

    /** By the length and first digits that payment cards have, and their check digit. */
    private static boolean cardIn(String text) {
        return CARD.matcher(text)
                .results()
                .map(m -> m.group().replaceAll("\\D", ""))
                .anyMatch(Secrets::card);
    }

    private static boolean card(String d) {
        boolean known = d.matches(
                "4\\d{12}(?:\\d{3}(?:\\d{3})?)?|5[1-5]\\d{14}|2[2-7]\\d{14}|3[47]\\d{13}|3(?:0[0-5]|[68]\\d)\\d{11}|"
                        + "6\\d{15,18}|(?:50|5[6-9])\\d{11,17}|35\\d{14}");
        return known && luhn(d);
    }

    private static boolean luhn(String digits) {
        int sum = 0;
        for (int i = 0; i < digits.length(); i++) {
            int digit = digits.charAt(digits.length() - 1 - i) - '0';
            if (i % 2 == 1) digit = digit > 4 ? digit * 2 - 9 : digit * 2;
            sum += digit;
        }
        return sum % 10 == 0;
    }
}
