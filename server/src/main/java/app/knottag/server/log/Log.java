package app.knottag.server.log;

import app.knottag.server.db.Json;
import java.time.Instant;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Writes what was changed, in the transaction that changes it. The database numbers and chains the entries. */
@Component
public class Log {

    /** One change. Before and after are any values that can be written as JSON, or null. */
    public record Entry(
            String person, String action, Long siteId, Long endpointId, Object before, Object after, String reason) {

        /** Where it is of a site, and of no endpoint of it. */
        public Entry at(Long site) {
            return at(site, null);
        }

        public Entry at(Long site, Long endpoint) {
            return new Entry(person, action, site, endpoint, before, after, reason);
        }

        public Entry before(Object value) {
            return new Entry(person, action, siteId, endpointId, value, after, reason);
        }

        public Entry after(Object value) {
            return new Entry(person, action, siteId, endpointId, before, value, reason);
        }

        public Entry because(String why) {
            return new Entry(person, action, siteId, endpointId, before, after, Objects.requireNonNullElse(why, ""));
        }
    }

    /**
     * An entry as it is shown.
     *
     * @param about the name of what it is about where that is no endpoint, or null when it has none
     */
    public record LogLine(
            long id,
            Instant at,
            String person,
            String action,
            @Nullable Long endpointId,
            @Nullable String endpoint,
            @Nullable String about,
            @Nullable Object before,
            @Nullable Object after,
            String reason) {}

    record Row(
            long id,
            Instant at,
            String person,
            String action,
            Long endpointId,
            String endpoint,
            Json before,
            Json after,
            String reason) {}

    @Mapper
    interface Entries {
        @Insert("""
                insert into log_entry (person, person_id, site_id, endpoint_id, action, before, after, reason)
                values (#{e.person}, (select id from person where name = #{e.person}), #{e.siteId}, #{e.endpointId},
                #{e.action}, #{before}, #{after}, #{e.reason})""")
        void add(@Param("e") Entry entry, @Param("before") Json before, @Param("after") Json after);

        @Select("select count(*) from log_entry")
        long count();

        @Select("select log_first_broken()")
        Long firstBroken();
    }

    private final Entries entries;
    private final JsonMapper json;

    Log(Entries entries, JsonMapper json) {
        this.entries = entries;
        this.json = json;
    }

    public static Entry entry(String person, String action) {
        return new Entry(person, action, null, null, null, null, "");
    }

    @Transactional(propagation = Propagation.MANDATORY)
    public void write(Entry entry) {
        entries.add(entry, json(entry.before()), json(entry.after()));
    }

    private Json json(Object value) {
        return Optional.ofNullable(value)
                .map(v -> new Json(json.writeValueAsString(v)))
                .orElse(null);
    }

    LogLine line(Row r) {
        Object before = value(r.before()), after = value(r.after());
        String about = Optional.ofNullable(r.endpointId()).isPresent()
                ? null
                : named(after).or(() -> named(before)).orElse(null);
        return new LogLine(
                r.id(), r.at(), r.person(), r.action(), r.endpointId(), r.endpoint(), about, before, after, r.reason());
    }

    private static Optional<String> named(Object value) {
        return value instanceof Map<?, ?> map && map.get("name") instanceof String name
                ? Optional.of(name)
                : Optional.empty();
    }

    private Object value(Json kept) {
        return Optional.ofNullable(kept)
                .map(k -> json.readValue(k.text(), Object.class))
                .orElse(null);
    }

    long count() {
        return entries.count();
    }

    Long firstBroken() {
        return entries.firstBroken();
    }
}
