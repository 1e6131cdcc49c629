package app.knottag.server.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.server.db.Json;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** What gear told of itself, and at which of its ports who hung. */
@Mapper
interface GearStore {

    record ReadingRow(long gearId, long siteId, Ipv4Address address, Instant at, String by, Json reading) {}

    @Insert("""
            insert into gear_reading (gear_id, site_id, address, at, by, reading)
            values (#{gearId}, #{siteId}, #{address}, #{at}, #{by}, #{reading})
            on conflict (gear_id) do update
            set address = excluded.address, at = excluded.at, by = excluded.by, reading = excluded.reading""")
    void keep(ReadingRow reading);

    @Select("select gear_id, site_id, address, at, by, reading from gear_reading where site_id = #{siteId}")
    List<ReadingRow> readings(long siteId);

    @Select("select site_id from gear where id = #{gearId}")
    @Nullable
    Long siteOf(long gearId);

    /** Where one MAC was heard by one reading. */
    record HeardAt(String port, String mac) {}

    /**
     * Lengthens the stay of whoever still hangs where she hung last, and begins one for everybody else.
     *
     * @param away for how long nobody may have looked for it to be one stay
     */
    @Insert("""
            <script>
            with heard as (
              select port, mac::macaddr as mac from (values
              <foreach collection="heard" item="h" separator=",">(#{h.port}, #{h.mac})</foreach>) v (port, mac)
            ), latest as (
              select distinct on (s.mac) s.id, s.mac, s.port, s.last_seen from port_stay s join heard h on h.mac = s.mac
              where s.gear_id = #{gearId} order by s.mac, s.last_seen desc, s.id desc
            ), longer as (
              update port_stay s set last_seen = greatest(s.last_seen, #{at}) from latest l, heard h
              where s.id = l.id and h.mac = l.mac and h.port = l.port and l.last_seen &gt; #{at}::timestamptz - #{away}::interval
              returning s.mac, s.port
            )
            insert into port_stay (site_id, gear_id, port, mac, first_seen, last_seen)
            select #{siteId}, #{gearId}, port, mac, #{at}, #{at} from heard h
            where not exists (select from longer l where l.mac = h.mac and l.port = h.port)
            </script>""")
    void heard(
            @Param("siteId") long siteId,
            @Param("gearId") long gearId,
            @Param("heard") List<HeardAt> heard,
            @Param("at") Instant at,
            @Param("away") String away);

    record PortRow(Mac mac, String gear, String port, Instant first, Instant last) {}

    /** Where each MAC was heard last; by several pieces of gear at about one time, all of them. */
    @Select("""
            select s.mac, g.name as gear, s.port, s.first_seen as first, s.last_seen as last
            from (select *, max(last_seen) over (partition by mac) as newest from port_stay where site_id = #{siteId}) s
            join gear g on g.id = s.gear_id
            where s.last_seen > s.newest - #{together}::interval and s.last_seen > now() - interval '30 days'
            order by s.mac, s.last_seen desc, s.id desc""")
    List<PortRow> ports(@Param("siteId") long siteId, @Param("together") String together);

    record HungRow(Mac mac, long endpointId, String name, String port, Instant first, Instant last) {}

    /** At which ports a MAC hung at a site, or who hung at a port, such as “Shop switch 7”; the latest first. */
    @Select("""
            select s.mac, coalesce(e.id, 0) as endpoint_id, coalesce(e.name, k.what, '') as name, g.name || ' ' || s.port as port,
              s.first_seen as first, s.last_seen as last
            from port_stay s join gear g on g.id = s.gear_id
            left join known_mac k on k.site_id = s.site_id and k.mac = s.mac
            left join interface i on i.mac = s.mac and i.site_id = s.site_id and i.retired_at is null
            left join endpoint e on e.id = i.endpoint_id and e.retired_at is null
            where s.site_id = #{siteId}
              and (s.mac::text = lower(#{of}) or lower(g.name || ' ' || s.port) = lower(#{of}))
            order by s.last_seen desc, s.id desc limit #{atMost}""")
    List<HungRow> hung(@Param("siteId") long siteId, @Param("of") String of, @Param("atMost") int atMost);
}
