package app.knottag.core.intake;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * Recognises what a pasted text is and reads it by the rules of its form: the one reader for lists that are brought in, for
 * what is pasted at an endpoint, and for registries. Nothing is guessed: what no rule reads is said to be unread.
 */
public final class TextReader {

    private static final Pattern BLOCK = Pattern.compile("\\b(?:lease\\s+[0-9.]+|host\\s+[^\\s{]+)\\s*\\{");
    private static final Pattern KEA = Pattern.compile("^" + Machine.A + ",(?:[^,]*,){7,12}[^,]*$");
    private static final String KEA_HEAD =
            "address,hwaddr,client_id,valid_lifetime,expire,subnet_id,fqdn_fwd,fqdn_rev,hostname,state";

    private TextReader() {}

    /** Reads a text; leases whose end is past at this moment have ended. */
    public static Recognised read(String text, Instant now) {
        return read(text, Optional.of(now));
    }

    static Recognised read(String whole, Optional<Instant> now) {
        String text = whole.replace("\r\n", "\n").replace('\r', '\n').replace('\u00a0', ' ');
        var json = JsonLists.read(text, now);
        if (json.isPresent()) return json.get();
        if (BLOCK.matcher(text).find()) return LeaseBlocks.read(text, now);
        var lines = new ArrayList<>(List.of(text.split("\n", -1)));
        var talk = talk(lines);
        if (talk.isPresent()) return talk.get();
        // Lease files by columns are also cut out without their first line.
        if (lines.stream().anyMatch(l -> KEA.matcher(l).matches())
                && lines.stream().noneMatch(l -> l.startsWith("address,"))) return headed(lines, now);
        var table = Tables.read(lines, now);
        if (table.isPresent() && table.get().sure() && !table.get().rows().isEmpty()) return table.get();
        var mail = MailReply.find(text);
        if (mail.isPresent()) return new Recognised.Mail(mail.get());
        return table.isPresent() ? table.get() : new Recognised.Unknown();
    }

    private static Optional<Recognised> talk(List<String> lines) {
        var short_ = lines.stream()
                .map(l -> l.length() > 400 ? l.substring(0, 400) : l)
                .toList();
        return ScanReader.read(short_).or(() -> EchoReader.read(short_)).or(() -> PortReader.read(short_));
    }

    private static Recognised headed(List<String> lines, Optional<Instant> now) {
        var named = new ArrayList<String>();
        named.add(KEA_HEAD);
        named.addAll(lines);
        var table = Tables.read(named, now).orElseThrow();
        return new Recognised.Table(
                table.form(),
                table.sure(),
                table.rows().stream().map(r -> r.onLine(r.line() - 1)).toList(),
                table.leftOut().stream()
                        .filter(r -> r.line() > 1)
                        .map(r -> new Draft.Remark(r.line() - 1, r.column(), r.message()))
                        .toList(),
                table.problems().stream()
                        .map(r -> new Draft.Remark(r.line() - 1, r.column(), r.message()))
                        .toList());
    }
}
