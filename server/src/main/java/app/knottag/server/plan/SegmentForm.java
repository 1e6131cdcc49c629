package app.knottag.server.plan;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Ipv6Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Purpose;
import app.knottag.core.address.Segment;
import app.knottag.core.log.Words;
import app.knottag.core.plan.Method;
import app.knottag.core.reading.ReadingException;
import app.knottag.core.series.Series;
import app.knottag.server.record.SiteStore.SegmentRow;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Problem.FieldError;
import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;

/** Reads what was typed about a segment and gathers everything wrong with it. */
final class SegmentForm {

    public record PoolRequest(String from, String to) {}

    /** A segment as it is typed in; a series may come with it, or those of a segment that it is laid out like. */
    public record SegmentRequest(
            @NotNull String name,
            @NotNull String prefix,
            String gateway,
            List<String> resolvers,
            List<PoolRequest> pools,
            Integer vlan,
            Integer leaseMinutes,
            Method method,
            Boolean canReserve,
            String notes,
            String prefix6,
            String gateway6,
            Boolean fixed6,
            String seriesName,
            Integer seriesHostBase,
            Integer seriesPortBase,
            Long likeSegmentId) {

        /** A segment with its addresses only. */
        public static SegmentRequest of(
                String name, String prefix, String gateway, List<String> resolvers, List<PoolRequest> pools) {
            return new SegmentRequest(
                    name, prefix, gateway, resolvers, pools, null, null, null, null, null, null, null, null, null, null,
                    null, null);
        }
    }

    /** What a segment is to become when it is renumbered. */
    record RenumberRequest(@NotNull String prefix, String gateway, List<String> resolvers, List<PoolRequest> pools) {}

    /** What was read. */
    public record Filled(SegmentRow row, Segment segment, Optional<Series> series) {}

    private final SegmentRequest body;
    private final List<FieldError> errors = new ArrayList<>();
    private AddressContext context = AddressContext.NONE;

    private SegmentForm(SegmentRequest body) {
        this.body = body;
    }

    /** Reads a form, or refuses it with everything that is wrong. */
    public static Filled read(long siteId, long id, SegmentRequest body) {
        return new SegmentForm(body).read(siteId, id);
    }

    /** Reads what a segment is to become; all that a renumbering does not touch stays away. */
    static Filled read(SegmentRow was, RenumberRequest body) {
        return read(
                was.siteId(),
                was.id(),
                SegmentRequest.of(was.name(), body.prefix(), body.gateway(), body.resolvers(), body.pools()));
    }

    private Filled read(long siteId, long id) {
        String name = body.name().strip();
        Words.problem(name, true).ifPresent(p -> error("name", "bad-name", p));
        var prefix = typed("prefix", body.prefix(), Purpose.PREFIX).map(Ipv4Prefix::parse);
        prefix.filter(p -> p.prefixLength() < 8)
                .ifPresent(p -> error("prefix", "too-wide", "A segment is a /8 or narrower."));
        refuse();
        context = new AddressContext(
                Optional.of(new Segment(prefix.get(), Optional.empty(), List.of())), Set.of(), Optional.empty());
        var gateway = optional("gateway", body.gateway(), Purpose.GATEWAY);
        var resolvers = resolvers();
        var pools = pools(gateway);
        if (body.vlan() != null && (body.vlan() < 1 || body.vlan() > 4094))
            error("vlan", "vlan-range", "A VLAN id runs from 1 to 4094 (IEEE 802.1Q).");
        int lease = body.leaseMinutes() == null ? Sites.USUAL_LEASE_MINUTES : body.leaseMinutes();
        if (lease < 1 || lease > 525_600)
            error("leaseMinutes", "lease-range", "A lease lasts from 1 minute to a year.");
        String notes = body.notes() == null ? "" : body.notes().strip();
        Words.problem(notes, false).ifPresent(p -> error("notes", "bad-words", p));
        var prefix6 = caught("prefix6", body.prefix6(), () -> Ipv6Prefix.parse(body.prefix6()));
        var gateway6 = caught(
                "gateway6",
                body.gateway6(),
                () -> prefix6.orElseThrow(() -> new ReadingException("An IPv6 gateway needs the IPv6 prefix."))
                        .gateway(body.gateway6()));
        var series = series();
        refuse();
        var row = new SegmentRow(
                id,
                siteId,
                name,
                prefix.get(),
                gateway.orElse(null),
                Sites.join(resolvers),
                body.vlan(),
                lease,
                (body.method() == null ? Method.FIXED : body.method()),
                body.canReserve() == null || body.canReserve(),
                notes,
                prefix6.map(Ipv6Prefix::text).orElse(null),
                gateway6.orElse(null),
                Boolean.TRUE.equals(body.fixed6()),
                null,
                null,
                "");
        return new Filled(row, new Segment(prefix.get(), gateway, pools), series);
    }

    private List<Ipv4Address> resolvers() {
        var resolvers = new ArrayList<Ipv4Address>();
        for (String text : body.resolvers() == null ? List.<String>of() : body.resolvers())
            optional("resolvers", text, Purpose.RESOLVER).ifPresent(r -> {
                if (resolvers.contains(r))
                    error("resolvers", "resolver-twice", "The second resolver is the same as the first: " + r + ".");
                resolvers.add(r);
            });
        return resolvers;
    }

    private List<Pool> pools(Optional<Ipv4Address> gateway) {
        var pools = new ArrayList<Pool>();
        var wanted = body.pools() == null ? List.<PoolRequest>of() : body.pools();
        for (int i = 0; i < wanted.size(); i++) {
            String at = "pools/" + i + "/";
            var from = optional(at + "from", wanted.get(i).from(), Purpose.ADDRESS);
            var to = optional(at + "to", wanted.get(i).to(), Purpose.ADDRESS);
            boolean failed = errors.stream().anyMatch(e -> e.pointer().startsWith("/" + at));
            if (failed || (from.isEmpty() && to.isEmpty())) continue;
            if (from.isPresent() != to.isPresent())
                error(
                        at + (from.isPresent() ? "to" : "from"),
                        "pool-end-missing",
                        "A pool needs both ends, or neither.");
            else if (from.get().compareTo(to.get()) > 0)
                error(
                        at + "to",
                        "pool-backwards",
                        "A pool runs upwards: " + to.get() + " comes before " + from.get() + ".");
            else pool(at, new Pool(from.get(), to.get()), gateway, pools);
        }
        return pools;
    }

    private void pool(String at, Pool pool, Optional<Ipv4Address> gateway, List<Pool> pools) {
        if (gateway.filter(pool::contains).isPresent())
            error(at + "from", "pool-over-gateway", "The pool covers the gateway " + gateway.get() + ".");
        pools.stream()
                .filter(p -> p.contains(pool.from()) || pool.contains(p.from()))
                .findFirst()
                .ifPresent(p -> error(at + "from", "pool-overlap", "It overlaps the pool " + p + "."));
        pools.add(pool);
    }

    private Optional<Series> series() {
        if (body.seriesName() == null || body.seriesName().isBlank()) return Optional.empty();
        Words.problem(body.seriesName().strip(), true).ifPresent(p -> error("seriesName", "bad-name", p));
        if (body.seriesHostBase() == null) {
            error("seriesHostBase", "missing", "Say what is added to the number, such as 50.");
            return Optional.empty();
        }
        return caught(
                "seriesHostBase",
                body.seriesName(),
                () -> new Series(
                        body.seriesName().strip(),
                        body.seriesHostBase(),
                        body.seriesPortBase() == null ? 0 : body.seriesPortBase()));
    }

    private <T> Optional<T> caught(String field, String text, Supplier<T> reader) {
        if (text == null || text.isBlank()) return Optional.empty();
        try {
            return Optional.of(reader.get());
        } catch (ReadingException e) {
            error(field, "bad-value", e.getMessage());
            return Optional.empty();
        }
    }

    private Optional<Ipv4Address> optional(String field, String text, Purpose purpose) {
        return text == null || text.isBlank()
                ? Optional.empty()
                : typed(field, text, purpose).map(Ipv4Address::parse);
    }

    private Optional<String> typed(String field, String text, Purpose purpose) {
        var reading = AddressReader.read(text, purpose, context);
        if (reading.usable() && !reading.value().contains(":")) return Optional.of(reading.value());
        var finding = reading.findings().stream().findFirst();
        error(
                field,
                finding.map(f -> Problem.word(f.code())).orElse("ipv6"),
                finding.map(f -> f.message()).orElse("This is IPv6; it has fields of its own below."));
        return Optional.empty();
    }

    private void error(String field, String code, String message) {
        errors.add(new FieldError("/" + field, code, message));
    }

    private void refuse() {
        if (!errors.isEmpty()) throw Problem.fields(errors);
    }
}
