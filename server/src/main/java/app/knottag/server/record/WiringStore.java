package app.knottag.server.record;

import app.knottag.core.hardware.Gear;
import app.knottag.core.hardware.Outlet;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Places, gear with ports, and outlets as they stand in the database. */
@Mapper
public interface WiringStore {

    record PlaceRow(long id, long siteId, String name, int walk) {}

    record GearRow(
            long id,
            long siteId,
            String name,
            Gear.Type type,
            @Nullable Long placeId) {}

    record PortRow(
            long id,
            long gearId,
            String gear,
            int number,
            Gear.Role role,
            @Nullable Long segmentId,
            boolean poe) {}

    record OutletRow(
            long id,
            long siteId,
            String name,
            @Nullable Long placeId,
            @Nullable String place,
            Outlet.State state,
            @Nullable Long portId) {}

    /** What an endpoint is plugged into. */
    record CableRow(
            long id,
            String name,
            String place,
            int walk,
            long segmentId,
            Long outletId,
            Long portId,
            boolean pluggedIn) {}

    @Select("select id, site_id, name, walk from place where site_id = #{siteId} order by walk, name")
    List<PlaceRow> places(long siteId);

    @Select("select id, site_id, name, type, place_id from gear where site_id = #{siteId} order by name")
    List<GearRow> gear(long siteId);

    @Select("""
            select p.id, p.gear_id, g.name as gear, p.number, p.role, p.segment_id, p.poe from port p join gear g on g.id = p.gear_id
            where p.site_id = #{siteId} order by g.name, p.number""")
    List<PortRow> ports(long siteId);

    @Select("""
            select o.id, o.site_id, o.name, o.place_id, pl.name as place, o.state, o.port_id from outlet o left join place pl on
                pl.id = o.place_id
            where o.site_id = #{siteId} order by o.name""")
    List<OutletRow> outlets(long siteId);

    @Select("""
            select e.id, e.name, coalesce(pl.name, '') as place, coalesce(pl.walk, 0) as walk, e.segment_id, e.outlet_id, e.port_id,
                exists (select 1 from step s where s.endpoint_id = e.id and s.key = 'wire' and s.status = 'PASSED') as plugged_in
            from endpoint e left join place pl on pl.id = e.place_id where e.site_id = #{siteId} and e.retired_at is null order by
                e.id""")
    List<CableRow> cableEnds(long siteId);

    @Select("""
            insert into place (site_id, name, walk) values (#{siteId}, #{name}, (select coalesce(max(walk), 0) + 10 from place where
                site_id = #{siteId}))
            on conflict (site_id, lower(name)) do update set name = place.name returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long keepPlace(@Param("siteId") long siteId, @Param("name") String name);

    @Update("update place set name = #{name}, walk = #{walk} where id = #{id}")
    void changePlace(@Param("id") long id, @Param("name") String name, @Param("walk") int walk);

    @Delete("delete from place where id = #{id}")
    void removePlace(long id);

    @Select("""
            insert into outlet (site_id, name, place_id) values (#{siteId}, #{name}, #{placeId})
            on conflict (site_id, lower(name)) do update set place_id = coalesce(outlet.place_id, excluded.place_id) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long keepOutlet(@Param("siteId") long siteId, @Param("name") String name, @Param("placeId") Long placeId);

    @Update("""
            update outlet set name = #{name}, place_id = #{placeId}, state = #{state}, port_id = #{portId} where id = #{id}""")
    void changeOutlet(OutletRow row);

    @Delete("delete from outlet where id = #{id}")
    void removeOutlet(long id);

    @Select("""
            insert into gear (site_id, name, type, place_id) values (#{siteId}, #{name}, #{type}, #{placeId})
            on conflict (site_id, lower(name)) do update set name = gear.name returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long keepGear(GearRow row);

    @Update("update gear set name = #{name}, type = #{type}, place_id = #{placeId} where id = #{id}")
    void changeGear(GearRow row);

    @Delete("delete from gear where id = #{id}")
    void removeGear(long id);

    @Select("""
            insert into port (site_id, gear_id, number) values (#{siteId}, #{gearId}, #{number})
            on conflict (gear_id, number) do update set number = excluded.number returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long keepPort(@Param("siteId") long siteId, @Param("gearId") long gearId, @Param("number") int number);

    @Insert("""
            insert into port (site_id, gear_id, number, role, segment_id, poe) values (#{siteId}, #{p.gearId}, #{p.number},
                #{p.role}, #{p.segmentId}, #{p.poe})
            on conflict (gear_id, number) do update set role = excluded.role, segment_id = excluded.segment_id, poe = excluded.poe""")
    void writePort(@Param("siteId") long siteId, @Param("p") PortRow port);

    @Delete("delete from port where id = #{id}")
    void removePort(long id);

    @Select("""
            select name from endpoint where place_id = #{id} and retired_at is null union all select name from outlet where place_id
                = #{id}
            union all select name from gear where place_id = #{id} order by 1""")
    List<String> usersOfPlace(long id);

    @Select("select name from endpoint where outlet_id = #{id} and retired_at is null order by name")
    List<String> usersOfOutlet(long id);

    @Select("""
            select name from endpoint where port_id = #{id} and retired_at is null union all select name from outlet where port_id = #{id}
            union all select name from site where feed_port_id = #{id} order by 1""")
    List<String> usersOfPort(long id);

    @Select("select name from series where gear_id = #{id} order by name")
    List<String> usersOfGear(long id);

    @Update("update endpoint set place_id = null where place_id = #{id} and retired_at is not null")
    void freeRetiredPlace(long id);

    @Update("update endpoint set outlet_id = null where outlet_id = #{id} and retired_at is not null")
    void freeRetiredOutlet(long id);

    @Update("update endpoint set port_id = null where port_id = #{id} and retired_at is not null")
    void freeRetiredPort(long id);

    @Update("update port set segment_id = null where segment_id = #{segmentId}")
    void leavePorts(long segmentId);

    /** Works out again what the finder reads, after a name it holds has changed. */
    @Update("update endpoint set finder = finder where site_id = #{siteId} and retired_at is null")
    void refreshFinder(long siteId);
}
