package app.knottag.core.intake;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Draft.Remark;
import app.knottag.core.intake.Recognised.Table;
import app.knottag.core.intake.Row.State;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Reads lease and host blocks in braces, statement by statement. Such a file is appended to, so the last block of an address
 * rules; what a lease is now stands in its own binding state and end, never in its next or former one. Times are UTC.
 */
final class LeaseBlocks {

    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyyy/MM/dd HH:mm:ss");
    private static final String ACTIVE = "active";

    private final String text;
    private final Optional<Instant> now;
    private final Map<String, Row> rows = new LinkedHashMap<>();
    private final List<Remark> leftOut = new ArrayList<>();
    private final List<Remark> problems = new ArrayList<>();
    private int at;
    private long line = 1;

    private LeaseBlocks(String text, Optional<Instant> now) {
        this.text = text;
        this.now = now;
    }

    /** A word, a mark of the grammar, or the end of the text. */
    private record Token(String word, boolean quoted, long line) {
        boolean is(String mark) {
            return !quoted && word.equals(mark);
        }

        boolean end() {
            return !quoted && word.isEmpty();
        }
    }

    static Table read(String text, Optional<Instant> now) {
        var reader = new LeaseBlocks(text, now);
        for (var token = reader.next(); !token.end(); token = reader.next())
            if (token.is("lease")) reader.lease(token.line());
            else if (token.is("host")) reader.host(token.line());
            else if (token.is("{")) reader.skipBlock();
        var held = new ArrayList<Row>();
        for (var row : reader.rows.values())
            if (row.state() == State.ENDED)
                reader.leftOut.add(new Remark(
                        row.line(), "", row.address().map(Object::toString).orElse("") + ": this lease has ended."));
            else held.add(row);
        held.addAll(reader.rows.values().stream()
                .filter(r -> r.state() == State.ENDED)
                .toList());
        return new Table(Form.LEASES, true, held, reader.leftOut, reader.problems);
    }

    private Token next() {
        while (at < text.length()) {
            char c = text.charAt(at);
            if (c == '\n') line++;
            if (c == '#') while (at + 1 < text.length() && text.charAt(at + 1) != '\n') at++;
            else if (c == '"') return quoted();
            else if (c == '{' || c == '}' || c == ';') {
                at++;
                return new Token("" + c, false, line);
            } else if (!Character.isWhitespace(c)) return word();
            at++;
        }
        return new Token("", false, line);
    }

    private Token quoted() {
        var word = new StringBuilder();
        for (at++; at < text.length() && text.charAt(at) != '"'; at++) {
            if (text.charAt(at) == '\\' && at + 1 < text.length()) at++;
            if (text.charAt(at) == '\n') line++;
            word.append(text.charAt(at));
        }
        at++;
        return new Token(word.toString(), true, line);
    }

    private Token word() {
        int from = at;
        while (at < text.length() && !Character.isWhitespace(text.charAt(at)) && "{};\"#".indexOf(text.charAt(at)) < 0)
            at++;
        return new Token(text.substring(from, at), false, line);
    }

    private void skipBlock() {
        int depth = 1;
        while (depth > 0) {
            var token = next();
            if (token.end()) return;
            if (token.is("{")) depth++;
            if (token.is("}")) depth--;
        }
    }

    /** Reads the statements of a block; returns empty when the block is not shut. */
    private Optional<List<List<Token>>> statements() {
        var statements = new ArrayList<List<Token>>();
        var words = new ArrayList<Token>();
        while (true) {
            var token = next();
            if (token.end()) return Optional.empty();
            if (token.is("}")) {
                if (!words.isEmpty()) statements.add(List.copyOf(words));
                return Optional.of(statements);
            }
            if (token.is("{")) {
                skipBlock();
                words.clear();
            } else if (token.is(";")) {
                if (!words.isEmpty()) statements.add(List.copyOf(words));
                words.clear();
            } else words.add(token);
        }
    }

    private static String words(List<Token> statement, int from) {
        var words = new ArrayList<String>();
        for (int i = from; i < statement.size(); i++) words.add(statement.get(i).word());
        return String.join(" ", words);
    }

    private Optional<List<List<Token>>> block(long start) {
        if (!next().is("{")) return Optional.empty();
        var statements = statements();
        if (statements.isEmpty())
            problems.add(new Remark(start, "", "This block is not shut. Is the end of the file missing?"));
        return statements;
    }

    private void lease(long start) {
        String named = next().word();
        var address = Machine.address(named);
        var statements = block(start);
        if (statements.isEmpty()) return;
        if (address.isEmpty()) {
            problems.add(new Remark(start, "address", "This lease cannot be read: “" + named + "” is not an address."));
            return;
        }
        String binding = ACTIVE, name = "";
        Optional<Mac> mac = Optional.empty();
        Optional<Instant> ends = Optional.empty();
        boolean abandoned = false;
        for (var s : statements.get()) {
            String first = s.get(0).word();
            if (first.equals("binding") && s.size() > 2) binding = s.get(2).word();
            else if (first.equals("abandoned")) abandoned = true;
            else if (first.equals("hardware") && s.size() > 2)
                mac = mac(s.get(2).word());
            else if (first.equals("client-hostname") && s.size() > 1)
                name = s.get(1).word();
            else if (first.equals("ends")) ends = time(start, words(s, 1));
        }
        boolean over = abandoned
                || !binding.equals(ACTIVE) && !binding.equals("bootp")
                || ends.isPresent() && now.isPresent() && ends.get().isBefore(now.get());
        put(
                address.get(),
                Row.of(start, address, mac, over ? State.ENDED : State.LEASED)
                        .named(name)
                        .until(ends));
    }

    private void host(long start) {
        String name = next().word();
        var statements = block(start);
        if (statements.isEmpty()) return;
        Optional<Mac> mac = Optional.empty();
        Optional<Ipv4Address> address = Optional.empty();
        for (var s : statements.get())
            if (s.get(0).is("hardware") && s.size() > 2) mac = mac(s.get(2).word());
            else if (s.get(0).is("fixed-address") && s.size() > 1)
                address = Machine.address(s.get(1).word().replace(",", ""));
        if (mac.isPresent() || address.isPresent())
            rows.put("host " + start, Row.of(start, address, mac, State.WRITTEN).named(name));
    }

    private void put(Ipv4Address address, Row row) {
        rows.remove(address.toString());
        rows.put(address.toString(), row);
    }

    private static Optional<Mac> mac(String text) {
        return Machine.MAC.matcher(text).matches()
                ? Optional.of(Machine.mac(text)).filter(Machine::ofOne)
                : Optional.empty();
    }

    /** “never”, “4 2026/11/26 08:00:00” with the day of the week, or “epoch 1795600000”. */
    private Optional<Instant> time(long start, String words) {
        if (words.equals("never")) return Optional.empty();
        if (words.matches("epoch [0-9]{1,12}"))
            return Optional.of(Instant.ofEpochSecond(Long.parseLong(words.substring(6))));
        try {
            return Optional.of(
                    LocalDateTime.parse(words.replaceFirst("^[0-6] ", ""), TIME).toInstant(ZoneOffset.UTC));
        } catch (DateTimeException e) {
            problems.add(new Remark(start, "", "This lease cannot be read: “" + words + "” is no time."));
            return Optional.empty();
        }
    }
}
