package app.knottag.server.reach;

import app.knottag.server.db.Json;
import java.time.Instant;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Rounds of checks as they came out; never changed afterwards. */
@Mapper
public interface RoundStore {

    record Row(long id, Instant at, String by, boolean failed, Json results) {}

    @Select(
            "insert into round (endpoint_id, at, by, failed, results) values (#{endpointId}, #{at}, #{by}, #{failed}, #{results}) returning id")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long add(
            @Param("endpointId") long endpointId,
            @Param("at") Instant at,
            @Param("by") String by,
            @Param("failed") boolean failed,
            @Param("results") Json results);

    // What was proved of a unit says nothing of the one that took its place.
    @Select("""
            select id, at, by, failed, results from round where endpoint_id = #{endpointId}
            and at > coalesce((select max(started_at) from swap where endpoint_id = #{endpointId}), '-infinity') order by id desc limit 1""")
    Row latest(long endpointId);
}
