package app.knottag.server.audit;

import app.knottag.core.address.Ipv4Address;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** What is on record of a site and is only asked for when a change is thought of. */
@Mapper
interface ImpactStore {

    record PassedRow(long endpointId, String key) {}

    @Select("""
            select s.endpoint_id, s.key from step s join endpoint e on e.id = s.endpoint_id
            where e.site_id = #{siteId} and e.retired_at is null and s.status = 'PASSED'""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<PassedRow> passed(long siteId);

    /** Whom a mail worksheet signs in as, or null when nobody. */
    record MailRow(long endpointId, @Nullable String user) {}

    @Select("""
            select endpoint_id, case when figures ->> 'signIn' = 'NONE' then '' else figures ->> 'user' end as user
            from worksheet where site_id = #{siteId} and endpoint_id is not null and sheet = 'mail'""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<MailRow> mail(long siteId);

    @Select("""
            select distinct t.endpoint_id from printed_tag t join endpoint e on e.id = t.endpoint_id
            where e.site_id = #{siteId} and e.retired_at is null""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<Long> labelled(long siteId);

    record PortRow(long endpointId, long gearId, String gear, int number) {}

    @Select("""
            select e.id as endpoint_id, g.id as gear_id, g.name as gear, p.number
            from endpoint e left join outlet o on o.id = e.outlet_id
            join port p on p.id = coalesce(e.port_id, o.port_id) join gear g on g.id = p.gear_id
            where e.site_id = #{siteId} and e.retired_at is null""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<PortRow> ports(long siteId);

    record EntryRow(
            long registryId,
            long endpointId,
            String name,
            @Nullable Ipv4Address address,
            String owner) {}

    @Select(
            "select registry_id, endpoint_id, name, address, owner from registration where site_id = #{siteId} and ended_at is null")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<EntryRow> entries(long siteId);

    record OpenRow(long endpointId, String title, String owner) {}

    @Select("""
            select o.endpoint_id, o.title, o.owner from opening o join endpoint e on e.id = o.endpoint_id
            where e.site_id = #{siteId} and e.retired_at is null and not o.closed and o.owner <> ''""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    List<OpenRow> openings(long siteId);
}
