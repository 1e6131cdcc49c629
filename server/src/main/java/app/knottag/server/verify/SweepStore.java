package app.knottag.server.verify;

import app.knottag.server.db.Json;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Sweeps as they went. */
@Mapper
interface SweepStore {

    /** How a sweep stands. */
    enum State {
        RUNNING,
        DONE,
        CANCELLED,
        CUT_OFF
    }

    record SweepRow(
            long id,
            long segmentId,
            State state,
            Instant startedAt,
            Instant endedAt,
            String by,
            int asked,
            int total,
            String vantage,
            Json results) {}

    @Select("""
            insert into sweep (segment_id, state, started_at, by, asked, total, vantage, results)
            values (#{segmentId}, 'RUNNING', #{startedAt}, #{by}, 0, #{total}, #{vantage}, '[]') returning id""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    long begin(
            @Param("segmentId") long segmentId,
            @Param("startedAt") Instant startedAt,
            @Param("by") String by,
            @Param("total") int total,
            @Param("vantage") String vantage);

    @Update("""
            update sweep set state = #{state}, ended_at = #{at}, asked = #{asked}, results = #{results}, heard = #{heard},
                vantage = vantage || case when #{how} = '' then '' else ', ' || #{how} end where id = #{id}""")
    void end(
            @Param("id") long id,
            @Param("state") State state,
            @Param("at") Instant at,
            @Param("asked") int asked,
            @Param("results") Json results,
            @Param("heard") int heard,
            @Param("how") String how);

    @Update("update sweep set asked = #{asked} where id = #{id}")
    void progress(@Param("id") long id, @Param("asked") int asked);

    /** Returns the segments with a sweep that has not ended. */
    @Select("select distinct segment_id from sweep where state = 'RUNNING'")
    List<Long> running();

    @Update(
            "update sweep set state = 'CUT_OFF', ended_at = now() where state = 'RUNNING' and segment_id = #{segmentId}")
    void cutOff(long segmentId);

    /** Forgets those by one who sweeps every night that this one takes the place of, when it saw anybody. */
    @Delete("""
            delete from sweep w using sweep last where last.id = #{id} and last.state = 'DONE' and last.heard > 0
            and w.segment_id = #{segmentId} and w.by = #{by} and w.id < last.id""")
    int onlyLast(@Param("segmentId") long segmentId, @Param("id") long id, @Param("by") String by);

    @Select("""
            select id, segment_id, state, started_at, ended_at, by, asked, total, vantage, results from sweep
            where segment_id = #{segmentId} order by id desc limit 1""")
    SweepRow latest(long segmentId);
}
