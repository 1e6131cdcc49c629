package app.knottag.server.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting.Source;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** Where a MAC has been, who has had an address, and who was where at a past time. */
@Mapper
interface PastStore {

    record StretchRow(
            Ipv4Address address,
            @Nullable Mac mac,
            long endpointId,
            String name,
            Source source,
            Instant first,
            Instant last,
            int looks,
            long siteId,
            String site) {}

    /**
     * Asked for: a MAC at whichever site, or an address of this one, or all of this one.
     *
     * @param mac empty for any
     * @param address empty for any
     * @param everybody whether all of a time are asked for, who stand by address
     * @param within the numbers of the only sites that are told of, or null for all
     */
    record Asked(
            long siteId,
            String mac,
            String address,
            Instant from,
            Instant to,
            boolean everybody,
            @Nullable String within,
            int atMost) {}

    @Select("""
            <script>
            select s.address, s.mac, case when e.retired then 0 else coalesce(e.id, 0) end as endpoint_id,
              coalesce(e.name || case when e.retired then ', retired' when e.swapped then ', a MAC it had before' else '' end,
                k.what, '') as name,
              s.source, s.first_seen as first, s.last_seen as last, s.looks, s.site_id, t.name as site
            from stay s join site t on t.id = s.site_id
            left join known_mac k on k.site_id = s.site_id and k.mac = s.mac
            left join lateral (
              select e.id, e.name, e.retired_at is not null as retired, i.retired_at is not null as swapped
              from interface i join endpoint e on e.id = i.endpoint_id
              where i.mac = s.mac and i.site_id = s.site_id order by i.retired_at desc nulls first, i.id desc limit 1
            ) e on true
            where s.last_seen &gt;= #{from} and s.first_seen &lt;= #{to}
              <if test="mac != ''">and s.mac = #{mac}::macaddr</if>
              <if test="mac == ''">and s.site_id = #{siteId}</if>
              <if test="within != null">and s.site_id = any(string_to_array(#{within}, ' ')::bigint[])</if>
              <if test="address != ''">and s.address = #{address}::inet</if>
            order by <if test="everybody">s.address,</if> s.last_seen desc, s.id desc limit #{atMost}
            </script>""")
    List<StretchRow> stretches(Asked asked);

    record LooksRow(@Nullable Instant before, @Nullable Instant after) {}

    /** When somebody was seen last before a time, and first after it. */
    @Select("""
            select max(last_seen) filter (where last_seen < #{at}) as before, min(first_seen) filter (where first_seen > #{at}) as after
            from stay where site_id = #{siteId}""")
    LooksRow looks(@Param("siteId") long siteId, @Param("at") Instant at);

    /** When a MAC was last seen to answer at an address of a site; empty when it never was. */
    @Select("""
            select max(last_seen) from stay where site_id = #{siteId} and mac = #{mac} and address = #{address}
            and source in ('NEIGHBOURS', 'LEASES')""")
    Optional<Instant> heldUntil(
            @Param("siteId") long siteId, @Param("mac") Mac mac, @Param("address") Ipv4Address address);
}
