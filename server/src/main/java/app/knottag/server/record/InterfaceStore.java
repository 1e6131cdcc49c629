package app.knottag.server.record;

import app.knottag.core.hardware.Interface;
import app.knottag.core.hardware.Interface.Medium;
import app.knottag.core.hardware.Mac;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Interfaces of endpoints as they stand in the database; retired ones are kept, to say whose an old MAC was. */
@Mapper
public interface InterfaceStore {

    /** An interface and the endpoint that has it, or had it. */
    record InterfaceRow(
            long id,
            long endpointId,
            long siteId,
            Medium medium,
            Mac mac,
            String standsAt,
            boolean counts,
            @Nullable Instant retiredAt) {

        public Interface plain() {
            return new Interface(medium, mac, standsAt, counts);
        }
    }

    String ROW = "select id, endpoint_id, site_id, medium, mac, stands_at, counts, retired_at from interface ";

    @Select(ROW + "where id = #{id}")
    InterfaceRow find(long id);

    @Select(ROW + "where endpoint_id = #{endpointId} and retired_at is null order by counts desc, medium, id")
    List<InterfaceRow> of(long endpointId);

    @Select(ROW + "where site_id = #{siteId} and retired_at is null order by id")
    List<InterfaceRow> ofSite(long siteId);

    @Select("<script>" + ROW + """
            where retired_at is null and endpoint_id in
            <foreach collection="ids" item="id" open="(" separator="," close=")">#{id}</foreach> order by id</script>""")
    List<InterfaceRow> some(@Param("ids") Collection<Long> ids);

    /** MACs that others of the site have, those that do not count among them. */
    @Select("select mac from interface where site_id = #{siteId} and retired_at is null and endpoint_id <> #{except}")
    List<Mac> macs(@Param("siteId") long siteId, @Param("except") long except);

    /** Whose a MAC is. */
    record NamedRow(Mac mac, String name) {}

    @Select("""
            select i.mac, e.name from interface i join endpoint e on e.id = i.endpoint_id
            where i.site_id = #{siteId} and i.retired_at is null and i.endpoint_id <> #{except}""")
    List<NamedRow> named(@Param("siteId") long siteId, @Param("except") long except);

    @Select(ROW + "where site_id = #{siteId} and mac = #{mac} and retired_at is null")
    @Nullable
    InterfaceRow having(@Param("siteId") long siteId, @Param("mac") Mac mac);

    /** The last that each MAC of the site was known to belong to, the living first. */
    @Select("""
            select distinct on (mac) id, endpoint_id, site_id, medium, mac, stands_at, counts, retired_at from interface
            where site_id = #{siteId} order by mac, retired_at desc nulls first""")
    List<InterfaceRow> everOf(long siteId);

    @Select("""
            insert into interface (endpoint_id, site_id, medium, mac, stands_at, counts)
            values (#{endpointId}, #{siteId}, #{i.medium}, #{i.mac}, #{i.standsAt}, #{i.counts}) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long add(@Param("endpointId") long endpointId, @Param("siteId") long siteId, @Param("i") Interface added);

    @Update(
            "update interface set medium = #{i.medium}, stands_at = #{i.standsAt}, counts = #{i.counts} where id = #{id}")
    void change(@Param("id") long id, @Param("i") Interface changed);

    @Update(
            "update interface set endpoint_id = #{endpointId}, counts = #{counts} where id = #{id} and retired_at is null")
    void move(@Param("id") long id, @Param("endpointId") long endpointId, @Param("counts") boolean counts);

    @Update("update interface set counts = false where endpoint_id = #{endpointId} and retired_at is null")
    void noneCounts(long endpointId);

    @Update("update interface set retired_at = #{at} where id = #{id} and retired_at is null")
    void retire(@Param("id") long id, @Param("at") Instant at);

    @Update("update interface set retired_at = #{at} where endpoint_id = #{endpointId} and retired_at is null")
    void retireAll(@Param("endpointId") long endpointId, @Param("at") Instant at);
}
