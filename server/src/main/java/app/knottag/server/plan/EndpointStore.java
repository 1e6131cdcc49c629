package app.knottag.server.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Arg;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.ResultMap;
import org.apache.ibatis.annotations.Results;
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
            String method,
            Integer servicePort,
            Long partnerId,
            String serial,
            Mac mac,
            String place,
            String outlet,
            String switchPort,
            String tagCode,
            String station,
            String knot,
            Instant confirmedAt,
            String confirmedBy,
            Instant retiredAt,
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
            String station,
            String knot) {}

    record Holder(long id, String name, Ipv4Address address, Mac mac) {}

    record Waiting(String station, long waiting, boolean frayed, boolean halfDrawn) {}

    String MAC = "left join interface i on i.endpoint_id = e.id and i.retired_at is null and i.medium = 'WIRED' ";
    String LINE = """
            select e.id, e.site_id, e.name, e.kind, e.address, e.address - host(network(s.prefix))::inet as host, e.segment_id, i.mac, e.serial, e.place,
            e.outlet, e.switch_port, e.tag_code, e.station, e.knot
            from endpoint e join segment s on s.id = e.segment_id\s""" + MAC;
    String ROW = """
            select e.id, e.site_id, e.segment_id, e.kind, e.kind_version, e.name, e.series_id, e.number, e.address, e.method, e.service_port, e.partner_id,
            e.serial, i.mac, e.place, e.outlet, e.switch_port, e.tag_code, e.station, e.knot, e.confirmed_at, e.confirmed_by, e.retired_at, e.version
            from endpoint e\s""" + MAC;

    @Select(ROW + "where e.id = #{id}")
    Row find(long id);

    @Select(ROW + "where e.site_id = #{siteId} and e.retired_at is null order by e.address nulls last, e.id")
    List<Row> all(long siteId);

    // Spelled out, because finding the columns by name again for every row takes most of the time of a long list.
    @Results(id = "line")
    @Arg(column = "id", name = "id", javaType = long.class)
    @Arg(column = "site_id", name = "siteId", javaType = long.class)
    @Arg(column = "name", name = "name", javaType = String.class)
    @Arg(column = "kind", name = "kind", javaType = String.class)
    @Arg(column = "address", name = "address", javaType = Ipv4Address.class)
    @Arg(column = "host", name = "host", javaType = Long.class)
    @Arg(column = "segment_id", name = "segmentId", javaType = Long.class)
    @Arg(column = "mac", name = "mac", javaType = Mac.class)
    @Arg(column = "serial", name = "serial", javaType = String.class)
    @Arg(column = "place", name = "place", javaType = String.class)
    @Arg(column = "outlet", name = "outlet", javaType = String.class)
    @Arg(column = "switch_port", name = "switchPort", javaType = String.class)
    @Arg(column = "tag_code", name = "tagCode", javaType = String.class)
    @Arg(column = "station", name = "station", javaType = String.class)
    @Arg(column = "knot", name = "knot", javaType = String.class)
    @Select(LINE + """
            where e.site_id = #{siteId} and e.retired_at is null
            and (e.address, e.id) > (coalesce(#{afterAddress}, '0.0.0.0'::inet), #{afterId})
            order by e.address, e.id limit #{limit}""")
    List<EndpointLine> page(
            @Param("siteId") long siteId,
            @Param("afterAddress") Ipv4Address afterAddress,
            @Param("afterId") long afterId,
            @Param("limit") int limit);

    @ResultMap("line")
    @Select(LINE + "where e.site_id = #{siteId} and e.retired_at is null and e.address is null order by e.id limit 200")
    List<EndpointLine> withoutAddress(long siteId);

    @ResultMap("line")
    @Select(LINE + """
            where e.retired_at is null and e.finder like #{pattern} escape '\\' order by (e.site_id = #{siteId}) desc, e.address, e.id limit 12""")
    List<EndpointLine> search(@Param("siteId") long siteId, @Param("pattern") String pattern);

    @Select("""
            select station, count(*) as waiting, bool_or(knot = 'FRAYED') as frayed, bool_or(knot = 'HALF_DRAWN') as half_drawn
            from endpoint where site_id = #{siteId} and retired_at is null group by station""")
    List<Waiting> waiting(long siteId);

    @Select(
            "select count(*) from endpoint where segment_id = #{segmentId} and retired_at is null and address is not null")
    long livingIn(long segmentId);

    @Select("select e.id, e.name, e.address, i.mac from endpoint e " + MAC
            + "where e.site_id = #{siteId} and e.retired_at is null")
    List<Holder> holders(long siteId);

    @Select(
            "select e.serial from endpoint e where e.kind = #{kind} and e.retired_at is null and e.serial <> '' and e.site_id = #{siteId} and e.id <> #{except}")
    List<String> serials(@Param("siteId") long siteId, @Param("kind") String kind, @Param("except") long except);

    @Select(
            "select number from endpoint where series_id = #{seriesId} and retired_at is null and number is not null order by number")
    List<Integer> numbers(long seriesId);

    @Select("select exists (select 1 from endpoint where tag_code = #{code} and retired_at is null)")
    boolean tagged(String code);

    @Select("""
            insert into endpoint (site_id, segment_id, kind, kind_version, name, series_id, number, address, service_port, partner_id, serial, place, outlet,
                switch_port, tag_code, station, knot)
            values (#{siteId}, #{segmentId}, #{kind}, #{kindVersion}, #{name}, #{seriesId}, #{number}, #{address}, #{servicePort}, #{partnerId}, #{serial},
                #{place}, #{outlet}, #{switchPort}, #{tagCode}, #{station}, #{knot}) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long add(Row row);

    @Update("""
            update endpoint set name = #{row.name}, address = #{row.address}, partner_id = #{row.partnerId}, service_port = #{row.servicePort},
                serial = #{row.serial}, place = #{row.place}, outlet = #{row.outlet}, switch_port = #{row.switchPort}, version = version + 1
            where id = #{row.id} and version = #{expected} and retired_at is null""")
    int change(@Param("row") Row row, @Param("expected") int expected);

    @Update(
            "update endpoint set version = version + 1 where id = #{id} and version = #{expected} and retired_at is null")
    int touch(@Param("id") long id, @Param("expected") int expected);

    @Update(
            "update endpoint set station = #{station}, knot = #{knot} where id = #{id} and (station, knot) is distinct from (#{station}, #{knot})")
    void stand(@Param("id") long id, @Param("station") String station, @Param("knot") String knot);

    @Update("update endpoint set confirmed_at = #{at}, confirmed_by = #{by} where id = #{id}")
    void confirm(@Param("id") long id, @Param("at") Instant at, @Param("by") String by);

    @Update(
            "update endpoint set retired_at = #{at}, version = version + 1 where id = #{id} and version = #{expected} and retired_at is null")
    int retire(@Param("id") long id, @Param("at") Instant at, @Param("expected") int expected);

    @Insert("insert into interface (endpoint_id, site_id, mac) values (#{endpointId}, #{siteId}, #{mac})")
    void addInterface(@Param("endpointId") long endpointId, @Param("siteId") long siteId, @Param("mac") Mac mac);

    @Update("update interface set retired_at = #{at} where endpoint_id = #{endpointId} and retired_at is null")
    void retireInterfaces(@Param("endpointId") long endpointId, @Param("at") Instant at);
}
