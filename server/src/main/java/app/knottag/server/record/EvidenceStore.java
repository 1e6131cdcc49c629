package app.knottag.server.record;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting.Source;
import app.knottag.server.db.Json;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** Who is on record with which MACs, who was seen where and for how long, and what was said of the rest. */
@Mapper
public interface EvidenceStore {

    /** An endpoint with one of its MACs, or with none. */
    record RecordedRow(
            long id,
            String name,
            @Nullable Ipv4Address address,
            @Nullable Mac mac,
            boolean counts) {}

    @Select("""
            select e.id, e.name, e.address, i.mac, coalesce(i.counts, false) as counts
            from endpoint e left join interface i on i.endpoint_id = e.id and i.retired_at is null
            where e.site_id = #{siteId} and e.retired_at is null order by e.id, i.id""")
    List<RecordedRow> recorded(long siteId);

    record SeenRow(Mac mac, Ipv4Address address, Source source, Instant first, Instant last) {}

    /** The latest stay of each MAC at each address, by each source that sees the wire, over times in which nobody looked. */
    @Select("""
            with part as (
              select mac, address, source, first_seen, last_seen,
                address is distinct from lag(address) over (partition by mac, source order by last_seen, address) as came
              from stay
              where site_id = #{siteId} and mac is not null and source in ('NEIGHBOURS', 'LEASES')
                and last_seen > now() - interval '400 days'
            ), whole as (
              select *, count(*) filter (where came) over (partition by mac, source order by last_seen, address) as number from part
            )
            select distinct on (mac, source, address) mac, address, source, min(first_seen) as first, max(last_seen) as last
            from whole group by mac, source, address, number order by mac, source, address, max(last_seen) desc""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<SeenRow> seen(long siteId);

    record SweptRow(Ipv4Prefix prefix, Instant at) {}

    /** When each segment was last asked to the end by a machine that saw MACs there. */
    @Select("""
            select s.prefix, max(w.ended_at) as at from sweep w join segment s on s.id = w.segment_id
            where s.site_id = #{siteId} and s.retired_at is null and w.state = 'DONE' and w.heard > 0
            group by s.prefix""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<SweptRow> swept(long siteId);

    record AloneRow(Ipv4Address address, Instant at, Json results) {}

    /** The last check of each of some addresses that found its own device there. */
    @Select("""
            select distinct on (e.address) e.address, c.at, c.results
            from endpoint e join check_run c on c.endpoint_id = e.id
            where e.site_id = #{siteId} and e.retired_at is null and e.address = any(
            #{addresses,typeHandler=org.apache.ibatis.type.ArrayTypeHandler}::inet[])
            and c.results @> '[{"check": "WHO_ANSWERS", "status": "PASSED"}]' order by e.address, c.id desc""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<AloneRow> alone(@Param("siteId") long siteId, @Param("addresses") String[] addresses);

    record FormerRow(Mac mac, String name, Instant until) {}

    /** MACs that were on record in the time of which sightings are looked at, and are no longer. */
    @Select("""
            select i.mac, (array_agg(e.name order by e.id desc))[1] as name,
              max(coalesce(i.retired_at, e.retired_at)) as until
            from interface i join endpoint e on e.id = i.endpoint_id
            where i.site_id = #{siteId} and (i.retired_at is not null or e.retired_at is not null)
              and coalesce(i.retired_at, e.retired_at) > now() - interval '400 days' group by i.mac""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<FormerRow> former(long siteId);

    record KnownRow(Mac mac, Ipv4Address address, String what, String by, Instant at) {}

    @Select("select mac, address, what, by, at from known_mac where site_id = #{siteId} order by mac")
    List<KnownRow> known(long siteId);
}
