package app.knottag.server.plan;

import app.knottag.server.db.Json;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Renumberings that run or have run; what is done of each stands in the database, so it may be interrupted anywhere. */
@Mapper
interface RenumberStore {

    record Row(
            long id,
            long siteId,
            long segmentId,
            Json was,
            Json becomes,
            Json steps,
            int done,
            Instant startedAt,
            String startedBy,
            Instant endedAt,
            int version) {}

    String ROW =
            "select id, site_id, segment_id, was, becomes, steps, done, started_at, started_by, ended_at, version from renumbering ";

    @Select(ROW + "where site_id = #{siteId} and ended_at is null order by id")
    List<Row> running(long siteId);

    @Select(ROW + "where id = #{id}")
    Row find(long id);

    @Select("""
            insert into renumbering (site_id, segment_id, was, becomes, steps, started_by)
            values (#{siteId}, #{segmentId}, #{was}, #{becomes}, #{steps}, #{by}) returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long add(
            @Param("siteId") long siteId,
            @Param("segmentId") long segmentId,
            @Param("was") Json was,
            @Param("becomes") Json becomes,
            @Param("steps") Json steps,
            @Param("by") String by);

    @Update("""
            update renumbering set done = #{done}, ended_at = #{endedAt}, version = version + 1
            where id = #{id} and version = #{expected} and ended_at is null""")
    int step(
            @Param("id") long id,
            @Param("expected") int expected,
            @Param("done") int done,
            @Param("endedAt") Instant endedAt);
}
