package app.knottag.server.record;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting;
import app.knottag.core.plan.Sighting.Source;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** What pasted lists, sweeps and checks say about who was seen where, kept as stays: one row as long as nothing changes. */
@Mapper
public interface SightingStore {

    record SightingRow(Ipv4Address address, Mac mac, Source source, Instant seenAt, Instant leaseEnds) {

        /** Somebody who answered. */
        public static SightingRow heard(Ipv4Address address, Mac mac, Instant at) {
            return new SightingRow(address, mac, Source.NEIGHBOURS, at, null);
        }
    }

    record AnswerRow(Source source, Instant at) {}

    // The newest word of each source on each address and MAC is enough to judge by.
    @Select("""
            select distinct on (source, address, mac) address, mac, source, last_seen as seen_at, lease_ends from stay
            where site_id = #{siteId} and last_seen > now() - interval '400 days' order by source, address, mac, last_seen desc""")
    List<SightingRow> latest(long siteId);

    @Select("select source, at from look where site_id = #{siteId}")
    List<AnswerRow> questions(long siteId);

    /** The rows of one look, column by column. */
    record Columns(String[] addresses, String[] macs, String[] sources, String[] times, String[] ends) {}

    /**
     * Lengthens the stays of those who are where they were, and begins one for everybody else. A stay is not lengthened
     * past a look of the same source that saw the device elsewhere, nor over a time in which it may have been away.
     */
    @Insert("""
            with seen as (
              select distinct on (address, mac, source) * from unnest(
                #{c.addresses,typeHandler=org.apache.ibatis.type.ArrayTypeHandler}::inet[],
                #{c.macs,typeHandler=org.apache.ibatis.type.ArrayTypeHandler}::macaddr[],
                #{c.sources,typeHandler=org.apache.ibatis.type.ArrayTypeHandler}::text[],
                #{c.times,typeHandler=org.apache.ibatis.type.ArrayTypeHandler}::timestamptz[],
                #{c.ends,typeHandler=org.apache.ibatis.type.ArrayTypeHandler}::timestamptz[]) as g (address, mac, source, at, ends)
              order by address, mac, source, at desc
            ), near as (
              select distinct on (g.address, g.mac, g.source) s.id, g.at, g.ends
              from seen g join stay s on s.site_id = #{siteId} and s.address = g.address
                and s.mac is not distinct from g.mac and s.source = g.source
                and g.at between s.first_seen - #{away}::interval and s.last_seen + #{away}::interval
              where not exists (
                select from stay o where o.site_id = s.site_id and o.mac = s.mac and o.source = s.source and o.address <> s.address
                  and (o.last_seen > s.last_seen and o.last_seen < g.at or o.first_seen < s.first_seen and o.first_seen > g.at))
              order by g.address, g.mac, g.source, s.last_seen desc
            ), longer as (
              update stay s set
                first_seen = least(s.first_seen, n.at), last_seen = greatest(s.last_seen, n.at),
                looks = s.looks + (n.at not in (s.first_seen, s.last_seen))::int,
                lease_ends = case when n.at >= s.last_seen then n.ends else s.lease_ends end, by = #{by}
              from near n where n.id = s.id returning s.address, s.mac, s.source
            )
            insert into stay (site_id, address, mac, source, first_seen, last_seen, looks, lease_ends, by)
            select #{siteId}, address, mac, source, at, at, 1, ends, #{by} from seen g where not exists (
              select from longer l where l.address = g.address and l.mac is not distinct from g.mac and l.source = g.source)""")
    void keep(
            @Param("siteId") long siteId,
            @Param("c") Columns columns,
            @Param("away") String away,
            @Param("by") String by);

    /** Keeps what one look saw. */
    default void add(long siteId, Collection<SightingRow> seen, String by) {
        if (seen.isEmpty()) return;
        keep(
                siteId,
                new Columns(
                        column(seen, SightingRow::address),
                        column(seen, SightingRow::mac),
                        column(seen, SightingRow::source),
                        column(seen, SightingRow::seenAt),
                        column(seen, SightingRow::leaseEnds)),
                Sighting.AWAY.toString(),
                by);
    }

    private static String[] column(Collection<SightingRow> seen, Function<SightingRow, @Nullable Object> of) {
        return seen.stream().map(of).map(v -> Objects.toString(v, null)).toArray(String[]::new);
    }

    @Insert("""
            insert into look (site_id, source, at) values (#{siteId}, #{source}, #{at})
            on conflict (site_id, source) do update set at = greatest(look.at, excluded.at)""")
    void looked(@Param("siteId") long siteId, @Param("source") Source source, @Param("at") Instant at);
}
