package app.knottag.server.record;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.kind.Protocol;
import app.knottag.core.plan.Method;
import app.knottag.core.series.Series.Counts;
import app.knottag.core.time.DateStyle;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Clients, sites, segments, pools, series and partners as they stand in the database. */
@Mapper
public interface SiteStore {

    record SiteRow(
            long id,
            String name,
            String code,
            String zone,
            DateStyle dates,
            @Nullable Long clientId,
            @Nullable String client,
            String nameRule,
            String feed,
            String feedNote,
            @Nullable Long feedPortId,
            int version) {}

    record SegmentRow(
            long id,
            long siteId,
            String name,
            Ipv4Prefix prefix,
            Ipv4Address gateway,
            String resolvers,
            Integer vlan,
            int leaseMinutes,
            Method method,
            boolean canReserve,
            String notes,
            String prefix6,
            String gateway6,
            boolean fixed6,
            Ipv4Prefix nextPrefix,
            Ipv4Address nextGateway,
            String nextResolvers) {}

    record PoolRow(long segmentId, Ipv4Address fromAddress, Ipv4Address toAddress) {}

    record SeriesRow(
            long id,
            long siteId,
            @Nullable Long segmentId,
            String name,
            Counts counts,
            int hostBase,
            int portBase,
            int lastNumber,
            double perYear,
            @Nullable Long followsId,
            @Nullable Long gearId) {}

    record PartnerRow(long id, long siteId, String name, Ipv4Address address, Integer testPort) {}

    record SummaryRow(long id, String name, String code, String client, long endpoints) {}

    record ClientRow(long id, String name) {}

    String SEGMENT = """
            select id, site_id, name, prefix, gateway, array_to_string(array(select host(r) from unnest(resolvers) r), ' ') as
                resolvers, vlan,
                lease_minutes, method, can_reserve, notes, prefix6::text as prefix6, host(gateway6) as gateway6, fixed6,
                    next_prefix, next_gateway,
                array_to_string(array(select host(r) from unnest(next_resolvers) r), ' ') as next_resolvers
            from segment\s""";
    String SERIES =
            "select id, site_id, segment_id, name, counts, host_base, port_base, last_number, per_year, follows_id, gear_id from series ";

    @Select("""
            select s.id, s.name, s.code, coalesce(c.name, '') as client, count(e.id) as endpoints from site s left join client c on
                c.id = s.client_id
            left join endpoint e on e.site_id = s.id and e.retired_at is null group by s.id, c.name order by c.name nulls last, s.name""")
    List<SummaryRow> summaries();

    @Select("""
            select s.id, s.name, s.code, s.zone, s.dates, s.client_id, c.name as client, s.name_rule, s.feed, s.feed_note,
                s.feed_port_id, s.version
            from site s left join client c on c.id = s.client_id where s.id = #{id}""")
    SiteRow site(long id);

    /** Takes the version that a change was made from; 0 when somebody else was quicker. */
    @Update("update site set version = version + 1 where id = #{id} and version = #{expected}")
    int claim(@Param("id") long id, @Param("expected") int expected);

    @Update("""
            update site set name = #{name}, zone = #{zone}, client_id = #{clientId}, name_rule = #{nameRule}, feed = #{feed},
                feed_note = #{feedNote},
                feed_port_id = #{feedPortId} where id = #{id}""")
    void changeSite(SiteRow row);

    @Select("select id, name from client order by name")
    List<ClientRow> clients();

    @Select("""
            insert into client (name) values (#{name}) on conflict (lower(name)) do update set name = client.name returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long keepClient(String name);

    @Select(SEGMENT + "where site_id = #{siteId} and retired_at is null order by prefix")
    List<SegmentRow> segments(long siteId);

    @Select(SEGMENT + "where id = #{id}")
    SegmentRow segment(long id);

    @Select("""
            select p.segment_id, p.from_address, p.to_address from pool p join segment s on s.id = p.segment_id where s.site_id =
                #{siteId} order by p.from_address""")
    List<PoolRow> pools(long siteId);

    @Select(SERIES + "where site_id = #{siteId} order by name")
    List<SeriesRow> series(long siteId);

    @Select(SERIES + "where id = #{id}")
    SeriesRow oneSeries(long id);

    @Select("select id, site_id, name, address, test_port from partner where site_id = #{siteId} order by name")
    List<PartnerRow> partners(long siteId);

    @Select("select id, site_id, name, address, test_port from partner where id = #{id}")
    PartnerRow partner(long id);

    /** A service that the site calls; {@code kinds} are those that call it, parted by commas, none when nobody said. */
    record ServiceRow(long id, long siteId, String name, Protocol protocol, String host, int port, String kinds) {

        public boolean calledBy(String kind) {
            return List.of(kinds.split(",")).contains(kind);
        }
    }

    @Select(
            "select id, site_id, name, protocol, host, port, kinds from listed_service where site_id = #{siteId} order by name")
    List<ServiceRow> services(long siteId);

    @Select("""
            insert into listed_service (site_id, name, protocol, host, port, kinds) values (#{siteId}, #{name}, #{protocol},
                #{host}, #{port}, #{kinds}) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long addService(ServiceRow row);

    @Update("""
            update listed_service set name = #{name}, protocol = #{protocol}, host = #{host}, port = #{port}, kinds = #{kinds} where
                id = #{id}""")
    void changeService(ServiceRow row);

    @Delete("delete from listed_service where id = #{id}")
    void removeService(long id);

    @Update("update partner set address = #{address} where id = #{id}")
    void movePartner(@Param("id") long id, @Param("address") Ipv4Address address);

    @Select("insert into site (name, code, zone, dates) values (#{name}, #{code}, #{zone}, #{dates}) returning id")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long addSite(
            @Param("name") String name,
            @Param("code") String code,
            @Param("zone") String zone,
            @Param("dates") DateStyle dates);

    @Update("update site set dates = #{dates} where id = #{id}")
    void writeDates(@Param("id") long id, @Param("dates") DateStyle dates);

    @Select("""
            insert into segment (site_id, name, prefix, gateway, resolvers, vlan, lease_minutes, method, can_reserve, notes,
                prefix6, gateway6, fixed6)
            values (#{siteId}, #{name}, #{prefix}, #{gateway}, string_to_array(#{resolvers}, ' ')::inet[], #{vlan}, #{leaseMinutes},
                #{method}, #{canReserve},
                #{notes}, #{prefix6}::cidr, #{gateway6}::inet, #{fixed6}) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long addSegment(SegmentRow row);

    @Update("""
            update segment set name = #{name}, prefix = #{prefix}, gateway = #{gateway}, resolvers = string_to_array(#{resolvers},
                ' ')::inet[], vlan = #{vlan},
                lease_minutes = #{leaseMinutes}, method = #{method}, can_reserve = #{canReserve}, notes = #{notes}, prefix6 =
                    #{prefix6}::cidr,
                gateway6 = #{gateway6}::inet, fixed6 = #{fixed6}, next_prefix = #{nextPrefix}, next_gateway = #{nextGateway},
                next_resolvers = string_to_array(#{nextResolvers}, ' ')::inet[] where id = #{id}""")
    void changeSegment(SegmentRow row);

    @Update("update segment set retired_at = #{at} where id = #{id}")
    void retireSegment(@Param("id") long id, @Param("at") Instant at);

    @Insert("insert into pool (segment_id, from_address, to_address) values (#{segmentId}, #{from}, #{to})")
    void addPool(@Param("segmentId") long segmentId, @Param("from") Ipv4Address from, @Param("to") Ipv4Address to);

    @Delete("delete from pool where segment_id = #{segmentId}")
    void clearPools(long segmentId);

    @Select("""
            insert into series (site_id, segment_id, name, counts, host_base, port_base, last_number, per_year, follows_id, gear_id)
            values (#{siteId}, #{segmentId}, #{name}, #{counts}, #{hostBase}, #{portBase}, #{lastNumber}, #{perYear}, #{followsId},
                #{gearId}) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long addSeries(SeriesRow row);

    @Update("""
            update series set segment_id = #{segmentId}, name = #{name}, counts = #{counts}, host_base = #{hostBase}, port_base =
                #{portBase},
                last_number = #{lastNumber}, per_year = #{perYear}, follows_id = #{followsId}, gear_id = #{gearId} where id = #{id}""")
    void changeSeries(SeriesRow row);

    @Update("update endpoint set series_id = null where series_id = #{id} and retired_at is not null")
    void freeRetiredOf(long id);

    @Delete("delete from series where id = #{id}")
    void removeSeries(long id);

    @Select("""
            insert into partner (site_id, name, address, test_port) values (#{siteId}, #{name}, #{address}, #{testPort})
            on conflict (site_id, name) do update set address = excluded.address, test_port = coalesce(excluded.test_port,
                partner.test_port) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long keepPartner(
            @Param("siteId") long siteId,
            @Param("name") String name,
            @Param("address") Ipv4Address address,
            @Param("testPort") Integer testPort);
}
