package app.knottag.server.record;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Interface;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Method;
import app.knottag.core.runbook.Stage.Station;
import app.knottag.core.status.Status;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Endpoints and their interfaces as they stand in the database. */
@Mapper
public interface EndpointStore {

    /** A whole endpoint; what it does not have yet is null. */
    record Row(
            long id,
            long siteId,
            long segmentId,
            String kind,
            int kindVersion,
            String name,
            Long seriesId,
            Integer number,
            Ipv4Address address,
            Method method,
            Integer servicePort,
            Long partnerId,
            Integer partnerPort,
            String hostName,
            String serial,
            String model,
            Mac mac,
            String place,
            String outlet,
            String switchPort,
            String tagCode,
            Station station,
            Status status,
            Instant confirmedAt,
            String confirmedBy,
            Instant handedOverAt,
            Instant retiredAt,
            Instant awaySince,
            String awayWhy,
            int version) {}

    /** What a list shows of an endpoint. */
    record EndpointLine(
            long id,
            long siteId,
            String name,
            String kind,
            @Nullable Ipv4Address address,
            @Nullable Long host,
            Long segmentId,
            @Nullable Mac mac,
            String serial,
            String place,
            String outlet,
            String switchPort,
            String tagCode,
            Station station,
            Status status) {}

    record Holder(long id, String name, Ipv4Address address, Mac mac) {}

    /** An endpoint of another site. */
    record Elsewhere(long siteId, String site, long id, String name) {}

    record Waiting(Station station, long waiting, boolean failed, boolean active) {}

    /** What is written of an endpoint when it is added or changed. */
    record Written(
            long id,
            long siteId,
            long segmentId,
            String kind,
            int kindVersion,
            String name,
            String hostName,
            Long seriesId,
            Integer number,
            Ipv4Address address,
            Method method,
            Integer servicePort,
            Long partnerId,
            Integer partnerPort,
            String serial,
            String model,
            Long placeId,
            Long outletId,
            Long portId,
            String tagCode) {}

    /** What the tape draws of an endpoint. */
    record Mark(long id, Ipv4Address address, String name, String kind, Status status) {}

    /** How the interface that counts is joined to the network, or null when none is on record. */
    @Select("select medium from interface where endpoint_id = #{endpointId} and retired_at is null and counts")
    Interface.@Nullable Medium medium(long endpointId);

    String MAC = "left join interface i on i.endpoint_id = e.id and i.retired_at is null and i.counts ";
    String WORDS = """
            coalesce(pl.name, '') as place, coalesce(o.name, '') as outlet, coalesce(g.name || ' ' || po.number, '') as switch_port,\s""";
    String WIRES = """
            left join place pl on pl.id = e.place_id left join outlet o on o.id = e.outlet_id
            left join port po on po.id = e.port_id left join gear g on g.id = po.gear_id\s""" + MAC;
    String LINE = "select e.id, e.site_id, e.name, e.kind, e.address, case when e.address << s.prefix then e.address - "
            + "host(network(s.prefix))::inet end as host, e.segment_id, i.mac, e.serial, "
            + WORDS + "e.tag_code, e.station, e.status from endpoint e join segment s on s.id = e.segment_id "
            + WIRES;
    String ROW =
            "select e.id, e.site_id, e.segment_id, e.kind, e.kind_version, e.name, e.series_id, e.number, e.address, "
                    + "e.method, e.service_port, e.partner_id, e.partner_port, e.host_name, e.serial, e.model, i.mac, "
                    + WORDS
                    + "e.tag_code, e.station, e.status, e.confirmed_at, e.confirmed_by, e.handed_over_at, e.retired_at, e.away_since, "
                    + "e.away_why, e.version from endpoint e "
                    + WIRES;

    @Select(ROW + "where e.id = #{id}")
    Row find(long id);

    @Select(ROW + "where e.site_id = #{siteId} and e.retired_at is null order by e.address nulls last, e.id")
    List<Row> all(long siteId);

    @Select("<script>" + ROW + """
            where e.retired_at is null and e.id in
            <foreach collection="ids" item="id" open="(" separator="," close=")">#{id}</foreach> order by e.id</script>""")
    List<Row> some(@Param("ids") Collection<Long> ids);

    @Select(LINE + """
            where e.site_id = #{siteId} and e.retired_at is null
            and (coalesce(e.address, '0.0.0.0'), e.id) > (#{afterAddress}, #{afterId})
            order by coalesce(e.address, '0.0.0.0'), e.id limit #{limit}""")
    List<EndpointLine> page(
            @Param("siteId") long siteId,
            @Param("afterAddress") Ipv4Address afterAddress,
            @Param("afterId") long afterId,
            @Param("limit") int limit);

    @Select(LINE + """
            where e.retired_at is null and e.finder like #{pattern} escape '\\'
            and (#{within}::text is null or e.site_id = any(string_to_array(#{within}, ' ')::bigint[]))
            order by (e.site_id = #{siteId}) desc, e.address, e.id limit 12""")
    List<EndpointLine> search(
            @Param("siteId") long siteId, @Param("pattern") String pattern, @Param("within") @Nullable String within);

    @Select("""
            select station, count(*) as waiting, bool_or(status = 'FAILED') as failed, bool_or(status = 'ACTIVE') as active
            from endpoint where site_id = #{siteId} and retired_at is null group by station""")
    List<Waiting> waiting(long siteId);

    @Select(
            "select count(*) from endpoint where segment_id = #{segmentId} and retired_at is null and address is not null")
    long livingIn(long segmentId);

    @Select("select e.id, e.name, e.address, i.mac from endpoint e " + MAC
            + "where e.site_id = #{siteId} and e.retired_at is null")
    List<Holder> holders(long siteId);

    /** Addresses that others of the site have. */
    @Select("""
            select address from endpoint where site_id = #{siteId} and retired_at is null and address is not null and id <> #{except}""")
    Set<Ipv4Address> addresses(@Param("siteId") long siteId, @Param("except") long except);

    /** Another endpoint, as far as one may be taken for the other. */
    record OtherRow(String name, String place, Mac mac, String serial, Integer number) {}

    @Select(
            "select e.name, coalesce(pl.name, '') as place, i.mac, e.serial, case when e.kind = me.kind then e.number end as number "
                    + "from endpoint e join endpoint me on me.id = #{except} left join place pl on pl.id = e.place_id "
                    + MAC + "where e.site_id = #{siteId} and e.retired_at is null and e.id <> #{except} order by e.id")
    List<OtherRow> others(@Param("siteId") long siteId, @Param("except") long except);

    /** How many of a kind have the maker's prefix of a MAC. */
    record MakerRow(Mac mac, String kind, int count) {}

    @Select("""
            select (array_agg(i.mac))[1] as mac, e.kind, count(*)::int as count from endpoint e
            join interface i on i.endpoint_id = e.id and i.retired_at is null and i.counts
            where e.site_id = #{siteId} and e.retired_at is null and e.id <> #{except} group by trunc(i.mac), e.kind""")
    List<MakerRow> makers(@Param("siteId") long siteId, @Param("except") long except);

    @Select("""
            select e.serial from endpoint e where e.kind = #{kind} and e.retired_at is null and e.serial <> '' and e.site_id =
                #{siteId} and e.id <> #{except}""")
    List<String> serials(@Param("siteId") long siteId, @Param("kind") String kind, @Param("except") long except);

    @Select("""
            select number from endpoint where series_id = #{seriesId} and retired_at is null and number is not null order by number""")
    List<Integer> numbers(long seriesId);

    /** Codes in use that begin so; one question however many there are. */
    @Select("select tag_code from endpoint where tag_code like #{start} || '%' and retired_at is null")
    Set<String> tagCodes(String start);

    /**
     * Holds back others that change the plan of the same site, until this transaction ends: what is free, whether a segment is
     * left and which name comes next is looked at and then written. To be asked before anything is looked at or written.
     */
    @Select("select count(*) from (select pg_advisory_xact_lock(7405, #{siteId}::int)) held")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    int oneAtATime(long siteId);

    /** Who has an address and is not called so: a partner may be onboarded under its own name. */
    @Select("""
            select name from endpoint where site_id = #{siteId} and address = #{address} and retired_at is null
            and lower(name) <> lower(#{called}) limit 1""")
    Optional<String> otherAt(
            @Param("siteId") long siteId, @Param("address") Ipv4Address address, @Param("called") String called);

    @Select("select name from endpoint where site_id = #{siteId} and serial = #{serial} and retired_at is null limit 1")
    String withSerial(@Param("siteId") long siteId, @Param("serial") String serial);

    @Select(
            "select name from endpoint where site_id = #{siteId} and host_name = #{hostName} and retired_at is null limit 1")
    String withHostName(@Param("siteId") long siteId, @Param("hostName") String hostName);

    @Select("select name from endpoint where series_id = #{seriesId} and number = #{number} and retired_at is null")
    String withNumber(@Param("seriesId") long seriesId, @Param("number") int number);

    @Select(
            "select name from endpoint where partner_id = #{partnerId} and partner_port = #{port} and retired_at is null")
    String withPartnerPort(@Param("partnerId") long partnerId, @Param("port") long port);

    @Select("select name from endpoint where port_id = #{portId} and retired_at is null")
    String onPort(long portId);

    /** Gear and number of a port beside this one that nobody is on and no outlet is patched to. */
    @Select("""
            select g.name || ' ' || p.number from port p join gear g on g.id = p.gear_id
            where p.gear_id = (select gear_id from port where id = #{portId}) and p.role = 'LAN'
                and not exists (select 1 from endpoint e where e.port_id = p.id and e.retired_at is null)
                and not exists (select 1 from outlet o where o.port_id = p.id)
            order by p.number limit 1""")
    String nextFreePort(long portId);

    @Select("""
            insert into endpoint (site_id, segment_id, kind, kind_version, name, host_name, series_id, number, address, method,
                service_port, partner_id,
                partner_port, serial, model, place_id, outlet_id, port_id, tag_code, station, status)
            values (#{siteId}, #{segmentId}, #{kind}, #{kindVersion}, #{name}, #{hostName}, #{seriesId}, #{number}, #{address},
                #{method}, #{servicePort},
                #{partnerId}, #{partnerPort}, #{serial}, #{model}, #{placeId}, #{outletId}, #{portId}, #{tagCode}, 'PLAN', 'PENDING')
                    returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long add(Written row);

    @Update("""
            update endpoint set name = #{row.name}, host_name = #{row.hostName}, address = #{row.address}, method = #{row.method},
                partner_id = #{row.partnerId}, partner_port = #{row.partnerPort}, service_port = #{row.servicePort}, serial =
                    #{row.serial}, model = #{row.model},
                place_id = #{row.placeId}, outlet_id = #{row.outletId}, port_id = #{row.portId}, version = version + 1
            where id = #{row.id} and version = #{expected} and retired_at is null""")
    int change(@Param("row") Written row, @Param("expected") int expected);

    /** Gives an endpoint another version of its kind. */
    @Update(
            "update endpoint set kind_version = #{version}, version = version + 1 where id = #{id} and version = #{expected}")
    int recipe(@Param("id") long id, @Param("version") int version, @Param("expected") int expected);

    @Update("update endpoint set address = #{address}, version = version + 1 where id = #{id} and retired_at is null")
    int move(@Param("id") long id, @Param("address") Ipv4Address address);

    @Select("""
            select id, address, name, kind, status from endpoint where segment_id = #{segmentId} and retired_at is null and address is
                not null order by address""")
    List<Mark> marks(long segmentId);

    @Select("select name from endpoint where segment_id = #{segmentId} and retired_at is null order by name")
    List<String> namesIn(long segmentId);

    @Select("select name from endpoint where series_id = #{seriesId} and retired_at is null order by number")
    List<String> namesInSeries(long seriesId);

    /** A partner of a series, and how many of its endpoints it serves. */
    record ServesRow(long partnerId, int count) {}

    @Select("""
            select partner_id, count(*)::int as count from endpoint
            where series_id = #{seriesId} and partner_id is not null and retired_at is null group by partner_id""")
    List<ServesRow> partnersOf(long seriesId);

    @Select("select id from endpoint where partner_id = #{partnerId} and retired_at is null order by id")
    List<Long> ofPartner(long partnerId);

    @Select("select host_name from endpoint where site_id = #{siteId} and retired_at is null and host_name <> ''")
    List<String> hostNames(long siteId);

    @Update(
            "update endpoint set version = version + 1 where id = #{id} and version = #{expected} and retired_at is null")
    int touch(@Param("id") long id, @Param("expected") int expected);

    @Update("""
            update endpoint set station = #{station}, status = #{status} where id = #{id} and (station, status) is distinct from
                (#{station}, #{status})""")
    void stand(@Param("id") long id, @Param("station") Station station, @Param("status") Status status);

    /** No sign-off holds any more; what is signed off anew is handed over anew. */
    @Update("update endpoint set confirmed_at = null, confirmed_by = null, handed_over_at = null where id = #{id}")
    void unconfirm(long id);

    /** Keeps a sign-off; what is signed off anew is handed over anew. */
    @Update("update endpoint set confirmed_at = #{at}, confirmed_by = #{by}, handed_over_at = null where id = #{id}")
    void confirm(@Param("id") long id, @Param("at") Instant at, @Param("by") String by);

    @Update("""
            update endpoint set retired_at = #{at}, version = version + 1 where id = #{id} and version = #{expected} and retired_at
                is null""")
    int retire(@Param("id") long id, @Param("at") Instant at, @Param("expected") int expected);

    /** Puts an endpoint away or back; away is null when it is back. */
    @Update("""
            update endpoint set away_since = #{since}, away_why = #{why}, version = version + 1
            where id = #{id} and version = #{expected} and retired_at is null""")
    int away(
            @Param("id") long id,
            @Param("since") Instant since,
            @Param("why") String why,
            @Param("expected") int expected);

    @Select("""
            select e.site_id, s.name as site, e.id, e.name from interface i join endpoint e on e.id = i.endpoint_id join site s on
                s.id = e.site_id
            where i.mac = #{mac} and i.retired_at is null and e.site_id <> #{siteId} and e.retired_at is null order by e.id limit 1""")
    @Nullable
    Elsewhere elsewhere(@Param("siteId") long siteId, @Param("mac") Mac mac);
}
