package app.knottag.server.register;

import app.knottag.server.db.Json;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Swaps that run or have run; the ticks are parted by commas. */
@Mapper
interface SwapStore {

    record SwapRow(
            long id,
            long siteId,
            long endpointId,
            Json oldUnit,
            Json newUnit,
            Json steps,
            String ticked,
            Instant startedAt,
            String startedBy,
            Instant endedAt,
            int version) {}

    String ROW = "select id, site_id, endpoint_id, old_unit, new_unit, steps, array_to_string(ticked, ',') as ticked, "
            + "started_at, started_by, ended_at, version from swap ";

    @Select(ROW
            + "where site_id = #{siteId} and (ended_at is null or ended_at > now() - interval '7 days') order "
            + "by ended_at nulls first, id desc")
    List<SwapRow> of(long siteId);

    @Select(ROW + "where id = #{id}")
    SwapRow find(long id);

    @Select("select exists (select 1 from swap where endpoint_id = #{endpointId} and ended_at is null)")
    boolean running(long endpointId);

    @Select("""
            insert into swap (site_id, endpoint_id, old_unit, new_unit, steps, ticked, started_by)
            values (#{siteId}, #{endpointId}, #{oldUnit}, #{newUnit}, #{steps}, string_to_array(#{ticked}, ',')::boolean[],
                #{startedBy}) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long add(SwapRow row);

    @Update("""
            update swap set ticked = string_to_array(#{ticked}, ',')::boolean[], steps = #{steps}, ended_at = #{endedAt}, version =
                version + 1
            where id = #{id} and version = #{expected} and ended_at is null""")
    int tick(
            @Param("id") long id,
            @Param("expected") int expected,
            @Param("ticked") String ticked,
            @Param("steps") Json steps,
            @Param("endedAt") Instant endedAt);
}
