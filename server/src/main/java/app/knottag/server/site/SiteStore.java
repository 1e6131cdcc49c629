package app.knottag.server.site;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Sites, segments, pools, series and partners as they stand in the database. */
@Mapper
public interface SiteStore {

    record SiteRow(long id, String name, String code, String zone) {}

    record SegmentRow(long id, long siteId, String name, Ipv4Prefix prefix, Ipv4Address gateway, String resolvers) {}

    record PoolRow(long segmentId, Ipv4Address fromAddress, Ipv4Address toAddress) {}

    record SeriesRow(long id, long siteId, long segmentId, String name, int hostBase, int portBase) {}

    record PartnerRow(long id, long siteId, String name, Ipv4Address address, Integer testPort) {}

    record SummaryRow(long id, String name, String code, long endpoints) {}

    String SEGMENT =
            "select id, site_id, name, prefix, gateway, array_to_string(array(select host(r) from unnest(resolvers) r), ' ') as resolvers from segment ";

    @Select("""
            select s.id, s.name, s.code, count(e.id) as endpoints from site s
            left join endpoint e on e.site_id = s.id and e.retired_at is null group by s.id order by s.name""")
    List<SummaryRow> summaries();

    @Select("select id, name, code, zone from site where id = #{id}")
    SiteRow site(long id);

    @Select(SEGMENT + "where site_id = #{siteId} order by prefix")
    List<SegmentRow> segments(long siteId);

    @Select(SEGMENT + "where id = #{id}")
    SegmentRow segment(long id);

    @Select(
            "select p.segment_id, p.from_address, p.to_address from pool p join segment s on s.id = p.segment_id where s.site_id = #{siteId} order by p.from_address")
    List<PoolRow> pools(long siteId);

    @Select(
            "select id, site_id, segment_id, name, host_base, port_base from series where site_id = #{siteId} order by name")
    List<SeriesRow> series(long siteId);

    @Select("select id, site_id, name, address, test_port from partner where site_id = #{siteId} order by name")
    List<PartnerRow> partners(long siteId);

    @Select("select id, site_id, name, address, test_port from partner where id = #{id}")
    PartnerRow partner(long id);

    @Select("insert into site (name, code, zone) values (#{name}, #{code}, #{zone}) returning id")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long addSite(@Param("name") String name, @Param("code") String code, @Param("zone") String zone);

    @Select("""
            insert into segment (site_id, name, prefix, gateway, resolvers)
            values (#{siteId}, #{name}, #{prefix}, #{gateway}, string_to_array(#{resolvers}, ' ')::inet[]) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long addSegment(
            @Param("siteId") long siteId,
            @Param("name") String name,
            @Param("prefix") Ipv4Prefix prefix,
            @Param("gateway") Ipv4Address gateway,
            @Param("resolvers") String resolvers);

    @Select(
            "insert into pool (segment_id, from_address, to_address) values (#{segmentId}, #{from}, #{to}) returning id")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long addPool(@Param("segmentId") long segmentId, @Param("from") Ipv4Address from, @Param("to") Ipv4Address to);

    @Select("""
            insert into series (site_id, segment_id, name, host_base, port_base)
            values (#{siteId}, #{segmentId}, #{name}, #{hostBase}, #{portBase}) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long addSeries(
            @Param("siteId") long siteId,
            @Param("segmentId") long segmentId,
            @Param("name") String name,
            @Param("hostBase") int hostBase,
            @Param("portBase") int portBase);

    @Select("""
            insert into partner (site_id, name, address, test_port) values (#{siteId}, #{name}, #{address}, #{testPort})
            on conflict (site_id, name) do update set address = excluded.address, test_port = coalesce(excluded.test_port, partner.test_port) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long keepPartner(
            @Param("siteId") long siteId,
            @Param("name") String name,
            @Param("address") Ipv4Address address,
            @Param("testPort") Integer testPort);
}
